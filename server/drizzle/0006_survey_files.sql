CREATE TABLE `survey_files` (
	`id` text NOT NULL,
	`document_id` text NOT NULL,
	`type` text NOT NULL,
	`bytes` blob NOT NULL,
	`received_at` integer NOT NULL,
	PRIMARY KEY(`document_id`, `id`),
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE cascade
);
