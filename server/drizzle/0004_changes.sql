ALTER TABLE `documents` ADD `body_revision` integer;--> statement-breakpoint
ALTER TABLE `revisions` ADD `patch` text;