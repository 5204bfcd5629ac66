CREATE TABLE `kits` (
	`document_id` text NOT NULL,
	`build_id` text NOT NULL,
	`body` text NOT NULL,
	`updated_at` integer NOT NULL,
	PRIMARY KEY(`document_id`, `build_id`),
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `shelf` (
	`kind` text NOT NULL,
	`name` text NOT NULL,
	`count` integer NOT NULL,
	`low` real,
	`high` real,
	`updated_at` integer NOT NULL,
	PRIMARY KEY(`kind`, `name`)
);
