ALTER TABLE `documents` ADD `archived_at` integer;--> statement-breakpoint
ALTER TABLE `documents` ADD `example` integer DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE `documents` SET `example` = true WHERE `id` IN ('bramble-winter', 'heron-autumn', 'pebble-tray', 'wren-sliders');
