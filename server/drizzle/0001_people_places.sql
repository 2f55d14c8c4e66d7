CREATE TABLE IF NOT EXISTS `accounts` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`person_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`login` varchar(40) NOT NULL,
	`password_hash` varchar(200) NOT NULL,
	`pin_hash` varchar(200),
	CONSTRAINT `accounts_crew_id_person_id_pk` PRIMARY KEY(`crew_id`,`person_id`),
	CONSTRAINT `accounts_login` UNIQUE(`login`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `profiles` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`name` varchar(40) NOT NULL,
	`spec_values` json NOT NULL,
	CONSTRAINT `profiles_crew_id_id_pk` PRIMARY KEY(`crew_id`,`id`),
	CONSTRAINT `profiles_name` UNIQUE(`crew_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `saw_entries` (
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`saw_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`arrival` bigint AUTO_INCREMENT NOT NULL,
	`kind` varchar(16) NOT NULL,
	`happened_at` datetime(3) NOT NULL,
	`written_at` datetime(3) NOT NULL,
	`written_by` varchar(36) character set ascii collate ascii_bin,
	`person_id` varchar(36) character set ascii collate ascii_bin,
	`note` varchar(2000),
	`body` json NOT NULL,
	CONSTRAINT `saw_entries_crew_id_id_pk` PRIMARY KEY(`crew_id`,`id`),
	CONSTRAINT `saw_entries_arrival` UNIQUE(`arrival`),
	CONSTRAINT `saw_entries_kind` CHECK(`saw_entries`.`kind` in ('barFitted', 'barFlipped', 'barChecked', 'railsDressed', 'sprocketRenewed', 'sawCorrected'))
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `sessions` (
	`token_hash` varchar(64) NOT NULL,
	`id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`crew_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`person_id` varchar(36) character set ascii collate ascii_bin NOT NULL,
	`device` varchar(80) NOT NULL,
	`started_at` datetime(3) NOT NULL,
	`seen_at` datetime(3) NOT NULL,
	`shared` boolean NOT NULL DEFAULT false,
	`by_pin` boolean NOT NULL DEFAULT false,
	CONSTRAINT `sessions_token_hash` PRIMARY KEY(`token_hash`),
	CONSTRAINT `sessions_id` UNIQUE(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `tries` (
	`key` varchar(255) NOT NULL,
	`points` int NOT NULL DEFAULT 0,
	`expire` bigint unsigned,
	CONSTRAINT `tries_key` PRIMARY KEY(`key`)
);
--> statement-breakpoint
ALTER TABLE `entries` DROP CONSTRAINT IF EXISTS `entries_kind`;--> statement-breakpoint
ALTER TABLE `entries` DROP FOREIGN KEY IF EXISTS `entries_person`;
--> statement-breakpoint
ALTER TABLE `crews` ADD COLUMN IF NOT EXISTS `demo` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `entries` ADD COLUMN IF NOT EXISTS `written_by` varchar(36) character set ascii collate ascii_bin;--> statement-breakpoint
ALTER TABLE `people` ADD COLUMN IF NOT EXISTS `role` varchar(8) DEFAULT 'sawyer' NOT NULL;--> statement-breakpoint
ALTER TABLE `saws` ADD COLUMN IF NOT EXISTS `nose_pitch_class` varchar(16);--> statement-breakpoint
ALTER TABLE `snapshots` ADD COLUMN IF NOT EXISTS `place` varchar(12) NOT NULL DEFAULT 'bench';--> statement-breakpoint
UPDATE `snapshots` SET `place` = 'saw' WHERE `saw_id` IS NOT NULL;--> statement-breakpoint
ALTER TABLE `snapshots` ADD COLUMN IF NOT EXISTS `stints` json NOT NULL DEFAULT '[]';--> statement-breakpoint
ALTER TABLE `accounts` ADD CONSTRAINT `accounts_person` FOREIGN KEY IF NOT EXISTS (`crew_id`,`person_id`) REFERENCES `people`(`crew_id`,`id`) ON DELETE no action ON UPDATE cascade;--> statement-breakpoint
ALTER TABLE `profiles` ADD CONSTRAINT `profiles_crew_id_crews_id_fk` FOREIGN KEY IF NOT EXISTS (`crew_id`) REFERENCES `crews`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `saw_entries` ADD CONSTRAINT `saw_entries_saw` FOREIGN KEY IF NOT EXISTS (`crew_id`,`saw_id`) REFERENCES `saws`(`crew_id`,`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `saw_entries` ADD CONSTRAINT `saw_entries_person` FOREIGN KEY IF NOT EXISTS (`crew_id`,`person_id`) REFERENCES `people`(`crew_id`,`id`) ON DELETE no action ON UPDATE cascade;--> statement-breakpoint
ALTER TABLE `saw_entries` ADD CONSTRAINT `saw_entries_writer` FOREIGN KEY IF NOT EXISTS (`crew_id`,`written_by`) REFERENCES `people`(`crew_id`,`id`) ON DELETE no action ON UPDATE cascade;--> statement-breakpoint
ALTER TABLE `sessions` ADD CONSTRAINT `sessions_account` FOREIGN KEY IF NOT EXISTS (`crew_id`,`person_id`) REFERENCES `accounts`(`crew_id`,`person_id`) ON DELETE cascade ON UPDATE cascade;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `saw_entries_of_saw` ON `saw_entries` (`crew_id`,`saw_id`);--> statement-breakpoint
ALTER TABLE `entries` ADD CONSTRAINT IF NOT EXISTS `entries_kind` CHECK (`entries`.`kind` in ('registered', 'specChanged', 'retagged', 'fitted', 'takenOff', 'moved', 'sentOut', 'cameBack', 'ran', 'struck', 'measured', 'sharpened', 'gaugesLowered', 'inspected', 'retired', 'corrected'));--> statement-breakpoint
ALTER TABLE `people` ADD CONSTRAINT IF NOT EXISTS `people_role` CHECK (`people`.`role` in ('lead', 'sawyer'));--> statement-breakpoint
ALTER TABLE `snapshots` ADD CONSTRAINT IF NOT EXISTS `snapshots_place` CHECK (`snapshots`.`place` in ('saw', 'shop', 'retired', 'truck', 'sharpRack', 'dullBox', 'bench'));--> statement-breakpoint
ALTER TABLE `snapshots` ADD CONSTRAINT IF NOT EXISTS `snapshots_on_a_saw` CHECK ((`snapshots`.`place` = 'saw') = (`snapshots`.`saw_id` is not null));--> statement-breakpoint
ALTER TABLE `entries` ADD CONSTRAINT `entries_writer` FOREIGN KEY IF NOT EXISTS (`crew_id`,`written_by`) REFERENCES `people`(`crew_id`,`id`) ON DELETE no action ON UPDATE cascade;--> statement-breakpoint
ALTER TABLE `entries` ADD CONSTRAINT `entries_person` FOREIGN KEY IF NOT EXISTS (`crew_id`,`person_id`) REFERENCES `people`(`crew_id`,`id`) ON DELETE no action ON UPDATE cascade;