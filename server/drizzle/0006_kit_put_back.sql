CREATE TABLE IF NOT EXISTS `kit_items` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`kind` varchar(16) NOT NULL,
	`name` varchar(40) NOT NULL,
	`version` int NOT NULL,
	`gone` varchar(16),
	`body` json NOT NULL,
	CONSTRAINT `kit_items_crew_id_id_pk` PRIMARY KEY(`crew_id`,`id`),
	CONSTRAINT `kit_items_kind` CHECK(`kit_items`.`kind` in ('file', 'stock', 'wheel', 'grinder', 'guide', 'plate', 'caliper', 'vise')),
	CONSTRAINT `kit_items_gone` CHECK(`kit_items`.`gone` in ('usedUp', 'broken', 'lost'))
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `under_way` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`loop_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`person_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`device_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`device` varchar(80) NOT NULL,
	`version` int NOT NULL,
	`saved_at` datetime(3) NOT NULL,
	`walk` json NOT NULL,
	CONSTRAINT `under_way_crew_id_loop_id_pk` PRIMARY KEY(`crew_id`,`loop_id`)
);
--> statement-breakpoint
ALTER TABLE `saw_entries` DROP CONSTRAINT IF EXISTS `saw_entries_kind`;--> statement-breakpoint
ALTER TABLE `kit_items` ADD CONSTRAINT `kit_items_crew_id_crews_id_fk` FOREIGN KEY IF NOT EXISTS (`crew_id`) REFERENCES `crews`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `under_way` ADD CONSTRAINT `under_way_loop` FOREIGN KEY IF NOT EXISTS (`crew_id`,`loop_id`) REFERENCES `loops`(`crew_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `under_way` ADD CONSTRAINT `under_way_person` FOREIGN KEY IF NOT EXISTS (`crew_id`,`person_id`) REFERENCES `people`(`crew_id`,`id`) ON DELETE no action ON UPDATE cascade;--> statement-breakpoint
ALTER TABLE `saw_entries` ADD CONSTRAINT IF NOT EXISTS `saw_entries_kind` CHECK (`saw_entries`.`kind` in ('barFitted', 'barFlipped', 'barChecked', 'railsDressed', 'putBack', 'tensionLooked', 'sprocketRenewed', 'sawRenamed', 'sawGone', 'sawBack', 'sawCorrected'));