CREATE TABLE IF NOT EXISTS `photos` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`saw_id` varchar(36) character set ascii collate ascii_bin,
	`loop_id` varchar(36) character set ascii collate ascii_bin,
	`shows` varchar(80) NOT NULL,
	`taken_at` datetime(3) NOT NULL,
	`person_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`picture` mediumblob NOT NULL,
	CONSTRAINT `photos_crew_id_id_pk` PRIMARY KEY(`crew_id`,`id`),
	CONSTRAINT `photos_of_one_thing` CHECK((`photos`.`saw_id` is null) <> (`photos`.`loop_id` is null))
);
--> statement-breakpoint
ALTER TABLE `photos` ADD CONSTRAINT `photos_saw` FOREIGN KEY IF NOT EXISTS (`crew_id`,`saw_id`) REFERENCES `saws`(`crew_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `photos` ADD CONSTRAINT `photos_loop` FOREIGN KEY IF NOT EXISTS (`crew_id`,`loop_id`) REFERENCES `loops`(`crew_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `photos` ADD CONSTRAINT `photos_person` FOREIGN KEY IF NOT EXISTS (`crew_id`,`person_id`) REFERENCES `people`(`crew_id`,`id`) ON DELETE no action ON UPDATE cascade;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `photos_taken` ON `photos` (`crew_id`,`taken_at`);