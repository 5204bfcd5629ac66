CREATE TABLE `log_entries` (
	`id` text NOT NULL,
	`document_id` text NOT NULL,
	`kind` text NOT NULL,
	`at` integer NOT NULL,
	`body` text NOT NULL,
	`struck_at` integer,
	`received_at` integer NOT NULL,
	PRIMARY KEY(`document_id`, `id`),
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `log_by_document` ON `log_entries` (`document_id`,`at`);--> statement-breakpoint
CREATE TABLE `photos` (
	`id` text NOT NULL,
	`run_id` text NOT NULL,
	`type` text NOT NULL,
	`bytes` blob NOT NULL,
	`received_at` integer NOT NULL,
	PRIMARY KEY(`run_id`, `id`),
	FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `runs` ADD `service` text;--> statement-breakpoint
ALTER TABLE `ticks` ADD `who` text;--> statement-breakpoint
ALTER TABLE `ticks` ADD `wrench` text;--> statement-breakpoint
ALTER TABLE `ticks` ADD `photo` text;