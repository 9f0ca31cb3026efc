/**
 * A job has a generation, a bin and a kept summary; a change says when it was taken and what would take it
 * back.
 */
export const generationsAndHistory: readonly string[] = [
  `ALTER TABLE jobs
    ADD COLUMN IF NOT EXISTS generation VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL,
    ADD COLUMN IF NOT EXISTS removed_at DATETIME(3) NULL,
    ADD COLUMN IF NOT EXISTS summary JSON NULL,
    ADD COLUMN IF NOT EXISTS summary_of VARCHAR(120) CHARACTER SET ascii COLLATE ascii_bin NULL`,
  'UPDATE jobs SET generation = UUID() WHERE generation IS NULL',
  `ALTER TABLE jobs MODIFY COLUMN generation VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL`,
  'ALTER TABLE jobs ADD INDEX IF NOT EXISTS by_touch (removed_at, updated_at, id)',
  'ALTER TABLE jobs ADD INDEX IF NOT EXISTS by_name (removed_at, name, id)',
  `ALTER TABLE changes
    ADD COLUMN IF NOT EXISTS taken_at DATETIME(3) NULL,
    ADD COLUMN IF NOT EXISTS take_back JSON NULL`,
];
