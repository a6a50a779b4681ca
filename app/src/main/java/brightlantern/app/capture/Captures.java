package brightlantern.app.capture;

import brightlantern.app.job.Cut;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Json;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.Extents;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.PackedSteps;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Captures, each lane in compressed parts of about a second. */
@Repository
public class Captures {
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_NOTE = 2000;
    private static final int LONGEST_TROUBLE = 600;
    private static final int MOST_RECENT = 3;

    /** So many samples are kept as one part when a whole capture is brought in. */
    private static final int PART = 250_000;

    private final JdbcClient db;
    private final Json json;

    /** Captures are large and are looked at many times in a row. */
    private final Map<Long, Opened> recent =
            new LinkedHashMap<>(8, 0.75f, true) {
                @Override
                protected boolean removeEldestEntry(Map.Entry<Long, Opened> eldest) {
                    return size() > MOST_RECENT;
                }
            };

    Captures(JdbcClient db, Json json) {
        this.db = db;
        this.json = json;
    }

    /**
     * A lane as it was connected.
     *
     * @param scale and offset: step × scale + offset is a sample in its unit
     * @param late seconds by which its instrument began later than the first one
     * @param apart whether that is not known, so that it cannot be held against the others
     */
    record LaneHead(
            String name,
            LaneRole role,
            String unit,
            String place,
            double scale,
            double offset,
            double late,
            boolean apart) {
        LaneHead(
                String name,
                LaneRole role,
                String unit,
                String place,
                double scale,
                double offset) {
            this(name, role, unit, place, scale, offset, 0, false);
        }

        static LaneHead of(Lane lane) {
            return new LaneHead(
                    lane.name(),
                    lane.role(),
                    lane.unit(),
                    lane.place(),
                    lane.scale(),
                    lane.offset());
        }

        Lane with(short[] steps) {
            return new Lane(name, role, unit, place, scale, offset, steps);
        }

        LaneHead as(LaneRole other) {
            return new LaneHead(name, other, unit, place, scale, offset, late, apart);
        }

        /** Not a number where it is not known. */
        LaneHead late(double seconds) {
            boolean known = !Double.isNaN(seconds);
            return new LaneHead(
                    name, role, unit, place, scale, offset, known ? seconds : 0, !known);
        }
    }

    /**
     * @param plan by which it was recorded; empty for one that was brought in
     * @param ended empty while it runs, or when the program died meanwhile
     * @param trouble why it ended early; empty when it did not
     */
    record Head(
            long id,
            long jobId,
            String plan,
            String name,
            String note,
            String who,
            Instant began,
            Optional<Instant> ended,
            double interval,
            List<LaneHead> lanes,
            String trouble) {}

    /** A capture in memory, with what makes pictures of it quick. */
    record Opened(Head head, Capture capture, List<Extents> extents) {}

    long begin(
            long jobId,
            String plan,
            String name,
            String who,
            double interval,
            List<LaneHead> lanes) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql(
                        "insert into capture (job_id, plan, name, who, began, interval_seconds, lanes)"
                                + " values (?, ?, ?, ?, ?, ?, ?)")
                .params(
                        jobId,
                        plan,
                        Cut.to(LONGEST_NAME, name),
                        who,
                        Jobs.time(Instant.now()),
                        interval,
                        json.write(lanes))
                .update(key, "id");
        return key.getKeyAs(Long.class);
    }

    /** Keeps the next part of all lanes; all of them or none. */
    @Transactional
    public void append(long id, int n, List<short[]> lanes) {
        for (int lane = 0; lane < lanes.size(); lane++) {
            db.sql(
                            "insert into capture_part (capture_id, n, lane, samples, content)"
                                    + " values (?, ?, ?, ?, ?)")
                    .params(id, n, lane, lanes.get(lane).length, PackedSteps.pack(lanes.get(lane)))
                    .update();
        }
    }

    void end(long id, String trouble) {
        db.sql("update capture set ended = ?, trouble = ? where id = ?")
                .params(Jobs.time(Instant.now()), Cut.to(LONGEST_TROUBLE, trouble), id)
                .update();
        forget(id);
    }

    /** Keeps what was recorded elsewhere. */
    @Transactional
    public long keep(long jobId, String name, String who, Capture capture) {
        long id =
                begin(
                        jobId,
                        "",
                        name,
                        who,
                        capture.interval(),
                        capture.lanes().stream().map(LaneHead::of).toList());
        for (int from = 0, n = 0; from < capture.length(); from += PART, n++) {
            int begin = from;
            int end = Math.min(capture.length(), from + PART);
            append(
                    id,
                    n,
                    capture.lanes().stream()
                            .map(l -> Arrays.copyOfRange(l.steps(), begin, end))
                            .toList());
        }
        end(id, "");
        return id;
    }

    void note(long id, String name, String note) {
        db.sql("update capture set name = ?, note = ? where id = ?")
                .params(Cut.to(LONGEST_NAME, name), Cut.to(LONGEST_NOTE, note), id)
                .update();
        forget(id);
    }

    void roles(Head head, List<LaneRole> roles) {
        List<LaneHead> changed = new ArrayList<>();
        for (int i = 0; i < head.lanes().size(); i++) {
            changed.add(head.lanes().get(i).as(roles.get(i)));
        }
        change(head, changed);
    }

    /**
     * @param late seconds by which the instrument of each lane began later than the first one, NaN
     *     where that is not known
     */
    void late(Head head, List<Double> late) {
        List<LaneHead> changed = new ArrayList<>();
        for (int i = 0; i < head.lanes().size(); i++) {
            changed.add(head.lanes().get(i).late(late.get(i)));
        }
        change(head, changed);
    }

    private void change(Head head, List<LaneHead> changed) {
        db.sql("update capture set lanes = ? where id = ?")
                .params(json.write(changed), head.id())
                .update();
        forget(head.id());
    }

    /** Of a job, the newest first. */
    List<Head> of(long jobId) {
        return db.sql("select * from capture where job_id = ? order by id desc")
                .param(jobId)
                .query((rs, n) -> head(rs))
                .list();
    }

    /** What those of a job are called, the newest first. */
    public List<String> names(long jobId) {
        return of(jobId).stream().map(Head::name).toList();
    }

    Optional<Head> head(long jobId, long id) {
        return db.sql("select * from capture where job_id = ? and id = ?")
                .params(jobId, id)
                .query((rs, n) -> head(rs))
                .optional();
    }

    private Head head(ResultSet rs) throws SQLException {
        return new Head(
                rs.getLong("id"),
                rs.getLong("job_id"),
                rs.getString("plan"),
                rs.getString("name"),
                rs.getString("note"),
                rs.getString("who"),
                Jobs.time(rs, "began"),
                Optional.ofNullable(rs.getObject("ended")).isPresent()
                        ? Optional.of(Jobs.time(rs, "ended"))
                        : Optional.empty(),
                rs.getDouble("interval_seconds"),
                List.of(json.read(rs.getString("lanes"), LaneHead[].class)),
                rs.getString("trouble"));
    }

    /** Opens a capture; empty when nothing of it was kept. */
    Optional<Opened> open(Head head) {
        synchronized (recent) {
            Opened known = recent.get(head.id());
            if (known != null) {
                return Optional.of(known);
            }
        }
        List<short[]> lanes = new ArrayList<>();
        for (int lane = 0; lane < head.lanes().size(); lane++) {
            lanes.add(steps(head.id(), lane));
        }
        int length = lanes.stream().mapToInt(s -> s.length).min().orElse(0);
        if (length == 0) {
            return Optional.empty();
        }
        List<Lane> all = new ArrayList<>();
        for (int i = 0; i < lanes.size(); i++) {
            all.add(head.lanes().get(i).with(Arrays.copyOf(lanes.get(i), length)));
        }
        Capture capture = new Capture(head.interval(), all);
        List<Integer> late =
                head.lanes().stream()
                        .map(l -> (int) Math.round(l.late() / head.interval()))
                        .toList();
        if (late.stream().anyMatch(l -> l != 0)) {
            capture = capture.moved(late);
        }
        Opened opened =
                new Opened(
                        head,
                        capture,
                        capture.lanes().stream().map(l -> new Extents(l.steps())).toList());
        if (head.ended().isPresent()) {
            synchronized (recent) {
                recent.put(head.id(), opened);
            }
        }
        return Optional.of(opened);
    }

    private short[] steps(long id, int lane) {
        List<short[]> parts =
                db.sql(
                                "select samples, content from capture_part where capture_id = ? and lane = ?"
                                        + " order by n")
                        .params(id, lane)
                        .query((rs, n) -> PackedSteps.unpack(rs.getBytes(2), rs.getInt(1)))
                        .list();
        short[] all = new short[parts.stream().mapToInt(p -> p.length).sum()];
        int at = 0;
        for (short[] part : parts) {
            System.arraycopy(part, 0, all, at, part.length);
            at += part.length;
        }
        return all;
    }

    private void forget(long id) {
        synchronized (recent) {
            recent.remove(id);
        }
    }
}
