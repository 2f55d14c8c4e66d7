CREATE TABLE IF NOT EXISTS `crews` (
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`name` varchar(60) NOT NULL,
	`lengths` varchar(8) NOT NULL,
	`rules` json NOT NULL,
	`revision` int NOT NULL DEFAULT 0,
	CONSTRAINT `crews_id` PRIMARY KEY(`id`),
	CONSTRAINT `crews_lengths` CHECK(`crews`.`lengths` in ('mm', 'inch', 'both'))
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `entries` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`loop_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`arrival` bigint AUTO_INCREMENT NOT NULL,
	`kind` varchar(16) NOT NULL,
	`happened_at` datetime(3) NOT NULL,
	`written_at` datetime(3) NOT NULL,
	`person_id` varchar(36) character set ascii collate ascii_bin,
	`strikes` varchar(36) character set ascii collate ascii_bin,
	`note` varchar(2000),
	`body` json NOT NULL,
	CONSTRAINT `entries_crew_id_id_pk` PRIMARY KEY(`crew_id`,`id`),
	CONSTRAINT `entries_arrival` UNIQUE(`arrival`),
	CONSTRAINT `entries_struck_once` UNIQUE(`crew_id`,`strikes`),
	CONSTRAINT `entries_kind` CHECK(`entries`.`kind` in ('registered', 'fitted', 'takenOff', 'ran', 'struck', 'measured', 'sharpened', 'gaugesLowered', 'inspected', 'retired', 'corrected')),
	CONSTRAINT `entries_corrections` CHECK((`entries`.`kind` = 'corrected') = (`entries`.`strikes` is not null))
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `loops` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`tag` varchar(12) NOT NULL,
	CONSTRAINT `loops_crew_id_id_pk` PRIMARY KEY(`crew_id`,`id`),
	CONSTRAINT `loops_tag` UNIQUE(`crew_id`,`tag`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `people` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`name` varchar(40) NOT NULL,
	CONSTRAINT `people_crew_id_id_pk` PRIMARY KEY(`crew_id`,`id`),
	CONSTRAINT `people_name` UNIQUE(`crew_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `saws` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`nickname` varchar(40) NOT NULL,
	`pitch_class` varchar(16) NOT NULL,
	`gauge_um` int NOT NULL,
	`drive_links` smallint NOT NULL,
	CONSTRAINT `saws_crew_id_id_pk` PRIMARY KEY(`crew_id`,`id`),
	CONSTRAINT `saws_nickname` UNIQUE(`crew_id`,`nickname`),
	CONSTRAINT `saws_pitch_class` CHECK(`saws`.`pitch_class` in ('quarter', 'lowProfile', 'p325', 'threeEighths', 'p404')),
	CONSTRAINT `saws_gauge` CHECK(`saws`.`gauge_um` between 800 and 3000),
	CONSTRAINT `saws_drive_links` CHECK(`saws`.`drive_links` between 20 and 250)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `snapshots` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`loop_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`saw_id` varchar(36) character set ascii collate ascii_bin,
	`action` varchar(16) NOT NULL,
	`fold_version` int NOT NULL,
	`state` json NOT NULL,
	`card` json NOT NULL,
	CONSTRAINT `snapshots_crew_id_loop_id_pk` PRIMARY KEY(`crew_id`,`loop_id`),
	CONSTRAINT `snapshots_one_loop_a_saw` UNIQUE(`crew_id`,`saw_id`)
);
--> statement-breakpoint
ALTER TABLE `entries` ADD CONSTRAINT `entries_loop` FOREIGN KEY IF NOT EXISTS (`crew_id`,`loop_id`) REFERENCES `loops`(`crew_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `entries` ADD CONSTRAINT `entries_person` FOREIGN KEY IF NOT EXISTS (`crew_id`,`person_id`) REFERENCES `people`(`crew_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `entries` ADD CONSTRAINT `entries_strikes` FOREIGN KEY IF NOT EXISTS (`crew_id`,`strikes`) REFERENCES `entries`(`crew_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `loops` ADD CONSTRAINT `loops_crew_id_crews_id_fk` FOREIGN KEY IF NOT EXISTS (`crew_id`) REFERENCES `crews`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `people` ADD CONSTRAINT `people_crew_id_crews_id_fk` FOREIGN KEY IF NOT EXISTS (`crew_id`) REFERENCES `crews`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `saws` ADD CONSTRAINT `saws_crew_id_crews_id_fk` FOREIGN KEY IF NOT EXISTS (`crew_id`) REFERENCES `crews`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `snapshots` ADD CONSTRAINT `snapshots_loop` FOREIGN KEY IF NOT EXISTS (`crew_id`,`loop_id`) REFERENCES `loops`(`crew_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `snapshots` ADD CONSTRAINT `snapshots_saw` FOREIGN KEY IF NOT EXISTS (`crew_id`,`saw_id`) REFERENCES `saws`(`crew_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `entries_of_loop` ON `entries` (`crew_id`,`loop_id`,`happened_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `snapshots_action` ON `snapshots` (`crew_id`,`action`);