CREATE TABLE IF NOT EXISTS `set_aside` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`part` varchar(20) NOT NULL,
	`why` varchar(500) NOT NULL,
	`row_text` json NOT NULL,
	CONSTRAINT `set_aside_crew_id_id_pk` PRIMARY KEY(`crew_id`,`id`)
);
--> statement-breakpoint
ALTER TABLE `set_aside` ADD CONSTRAINT `set_aside_crew_id_crews_id_fk` FOREIGN KEY IF NOT EXISTS (`crew_id`) REFERENCES `crews`(`id`) ON DELETE cascade ON UPDATE no action;