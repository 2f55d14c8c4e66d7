CREATE TABLE IF NOT EXISTS `shed_parts` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`kind` varchar(8) NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`digest` varchar(32) NOT NULL,
	`revision` int NOT NULL,
	`gone` boolean NOT NULL DEFAULT false,
	CONSTRAINT `shed_parts_crew_id_kind_id_pk` PRIMARY KEY(`crew_id`,`kind`,`id`)
);
--> statement-breakpoint
ALTER TABLE `shed_parts` ADD CONSTRAINT `shed_parts_crew_id_crews_id_fk` FOREIGN KEY IF NOT EXISTS (`crew_id`) REFERENCES `crews`(`id`) ON DELETE cascade ON UPDATE no action;