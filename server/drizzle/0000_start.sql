CREATE TABLE `documents` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`rig_name` text NOT NULL,
	`body_kind` text NOT NULL,
	`revision` integer NOT NULL,
	`body` text NOT NULL,
	`updated_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `meta` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `revisions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`document_id` text NOT NULL,
	`revision` integer NOT NULL,
	`kind` text NOT NULL,
	`body` text NOT NULL,
	`saved_at` integer NOT NULL,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `revisions_by_document` ON `revisions` (`document_id`,`kind`,`revision`);--> statement-breakpoint
CREATE TABLE `runs` (
	`id` text PRIMARY KEY NOT NULL,
	`document_id` text NOT NULL,
	`revision` integer NOT NULL,
	`build_id` text NOT NULL,
	`body` text NOT NULL,
	`started_at` integer NOT NULL,
	`ended_at` integer,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `ticks` (
	`id` text NOT NULL,
	`run_id` text NOT NULL,
	`step_id` text NOT NULL,
	`joint_id` text,
	`kind` text NOT NULL,
	`torque_nm` real,
	`note` text,
	`at` integer NOT NULL,
	`received_at` integer NOT NULL,
	`device` text NOT NULL,
	PRIMARY KEY(`run_id`, `id`),
	FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `ticks_by_run` ON `ticks` (`run_id`,`at`);