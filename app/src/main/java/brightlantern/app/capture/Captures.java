package brightlantern.app.capture;

import brightlantern.app.job.Cut;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Json;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureAlignment;
import brightlantern.core.capture.EngineCycles;
import brightlantern.core.capture.Extents;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.cylinder.Cylinders;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Captures of jobs: what is known of each, and the ones that are looked at. */
@Repository
public class Captures {
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_NOTE = 2000;
    private static final int LONGEST_TROUBLE = 600;

    /** So many samples are kept as one part when a whole capture is brought in. */
    private static final int PART = 250_000;

    private final JdbcClient db;
    private final Json json;
    private final CaptureParts parts;

    private final RecentCaptures recent = new RecentCaptures();

    /** Those that are being recorded, as far as they have come. */
    private final Map<Long, List<Extents>> growing = new ConcurrentHashMap<>();

    Captures(JdbcClient db, Json json, CaptureParts parts) {
        this.db = db;
        this.json = json;
        this.parts = parts;
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
     * @param setAside whether it went wrong, and is kept apart from the others
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
            String trouble,
            boolean setAside) {}

    /**
     * A capture in memory, with what makes pictures of it quick.
     *
     * @param turns cycles of its engine, once they were asked for
     * @param laid how others lie under it, once that was asked for
     */
    record Opened(
            Head head,
            Capture capture,
            List<Extents> extents,
            Map<Optional<Cylinders>, EngineCycles> turns,
            Map<Under, CaptureAlignment> laid) {
        record Under(CaptureAlignment.By by, Head other, Optional<Cylinders> its) {}

        EngineCycles cycles(Optional<Cylinders> of) {
            return turns.computeIfAbsent(of, c -> EngineCycles.of(capture, c));
        }

        CaptureAlignment laid(
                CaptureAlignment.By by, Opened other, Optional<Cylinders> of, double moved) {
            return laid.computeIfAbsent(
                            new Under(by, other.head, of),
                            u -> CaptureAlignment.of(by, turned(of), other.turned(of)))
                    .moved(moved);
        }

        private CaptureAlignment.Turned turned(Optional<Cylinders> of) {
            return new CaptureAlignment.Turned(capture, cycles(of));
        }
    }

    /** Begins one whose lanes can be looked at while they come in. */
    long record(
            long jobId,
            String plan,
            String name,
            String who,
            double interval,
            List<LaneHead> lanes) {
        long id = begin(jobId, plan, name, who, interval, lanes);
        growing.put(id, lanes.stream().map(l -> new Extents(new short[0])).toList());
        return id;
    }

    /** What was read in one that was recorded is filed: nothing more comes. */
    void settled(long id) {
        growing.remove(id);
    }

    /** What came in so far, lane by lane; empty when it is not being recorded. */
    Optional<List<Extents>> growing(long id) {
        return Optional.ofNullable(growing.get(id));
    }

    private long begin(
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
        parts.add(id, n, lanes);
        growing(id)
                .ifPresent(
                        its -> {
                            for (int lane = 0; lane < lanes.size(); lane++) {
                                its.get(lane).append(lanes.get(lane));
                            }
                        });
    }

    void end(long id, String trouble) {
        db.sql("update capture set ended = ?, trouble = ? where id = ?")
                .params(Jobs.time(Instant.now()), Cut.to(LONGEST_TROUBLE, trouble), id)
                .update();
        recent.forget(id);
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
        recent.forget(id);
    }

    void setAside(long id, boolean apart) {
        db.sql("update capture set set_aside = ? where id = ?").params(apart, id).update();
        recent.forget(id);
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
        recent.forget(head.id());
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
                rs.getString("trouble"),
                rs.getBoolean("set_aside"));
    }

    /** Opens a capture; empty when nothing of it was kept. */
    Optional<Opened> open(Head head) {
        Optional<Opened> known = recent.get(head.id());
        if (known.isPresent()) {
            return known;
        }
        List<short[]> lanes = parts.steps(head.id(), head.lanes().size());
        int length = lanes.stream().mapToInt(l -> l.length).min().orElse(0);
        if (length == 0) {
            return Optional.empty();
        }
        List<Lane> all = new ArrayList<>();
        for (int i = 0; i < lanes.size(); i++) {
            short[] its = lanes.get(i);
            all.add(
                    head.lanes()
                            .get(i)
                            .with(its.length == length ? its : Arrays.copyOf(its, length)));
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
                        capture.lanes().parallelStream().map(l -> new Extents(l.steps())).toList(),
                        new ConcurrentHashMap<>(),
                        new ConcurrentHashMap<>());
        if (head.ended().isPresent()) {
            recent.keep(opened);
        }
        return Optional.of(opened);
    }
}
