-- A page of a job's frames, and how many there are, without a look at those of other pages.
CREATE INDEX frames_in_order ON frames (job_id, row, setup_id, binned_at);

-- How each frame was taken, worked out of its summary when it is written: of thousands, reading it takes milliseconds. The
-- expression is that of `frames_as_taken` in frame_list.rs, word for word; with another one SQLite would not look here.
CREATE INDEX frames_as_taken ON frames (
    job_id, row, setup_id, binned_at, id,
    CASE WHEN summary <> '' THEN json_array(
        summary ->> '$.shot_id', summary ->> '$.name', summary ->> '$.width', summary ->> '$.height', summary -> '$.settings'
    ) END
);

-- Frames whose summary is still to be written are found without looking at the others.
CREATE INDEX frames_without_summary ON frames (row) WHERE summary = '';
