package brightlantern.app.job;

import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import brightlantern.core.take.TakeChunk;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Takes as compressed columnar chunks of about a second. */
@Repository
public class Takes {
    public static final String REFUELLED = "refuelled";

    private static final int MOST_RECENT = 4;

    /** Characters of a take's name. */
    private static final int LONGEST_NAME = 200;

    private static final int LONGEST_MARK = 400;

    private final JdbcClient db;
    private final Json json;
    private final Set<Long> running = ConcurrentHashMap.newKeySet();

    /** Takes are large and are looked at many times in a row. */
    private final Map<Long, Take> recent =
            new LinkedHashMap<>(8, 0.75f, true) {
                @Override
                protected boolean removeEldestEntry(Map.Entry<Long, Take> eldest) {
                    return size() > MOST_RECENT;
                }
            };

    Takes(JdbcClient db, Json json) {
        this.db = db;
        this.json = json;
    }

    /**
     * @param ended empty while it runs, or when the program died meanwhile
     * @param circumstance refuelled when it was recorded soon after filling up; empty otherwise
     * @param setAside it went wrong and was done again; no study counts it
     * @param source the file that it was read from; empty when it was recorded
     */
    public record TakeHead(
            long id,
            long jobId,
            String name,
            Instant started,
            Optional<Instant> ended,
            String circumstance,
            String note,
            boolean setAside,
            String source) {
        public boolean refuelled() {
            return circumstance.equals(REFUELLED);
        }
    }

    public long start(long jobId, String name, Instant at, String circumstance) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql("insert into take (job_id, name, started, circumstance) values (?, ?, ?, ?)")
                .params(jobId, Cut.to(LONGEST_NAME, name), Jobs.time(at), circumstance)
                .update(key, "id");
        return key.getKeyAs(Long.class);
    }

    /**
     * Keeps what was read elsewhere as a take.
     *
     * @param own values that the vehicle's description does not know
     */
    @Transactional
    public long keep(
            long jobId, String name, Instant at, String source, Take take, List<Value> own) {
        long id = start(jobId, name, at, "");
        db.sql("update take set source = ?, own_values = ? where id = ?")
                .params(source, own.isEmpty() ? null : json.write(own), id)
                .update();
        append(id, 0, take.columns(), v -> Optional.empty());
        take.marks().forEach(m -> mark(id, m.seconds(), m.text()));
        end(id, at.plusMillis(Math.round(take.lengthSeconds() * 1000)));
        return id;
    }

    /** Values of a take that the vehicle's description does not know. */
    public List<Value> own(long takeId) {
        return db.sql("select own_values from take where id = ?")
                .param(takeId)
                .query((rs, n) -> Optional.ofNullable(rs.getString(1)))
                .optional()
                .flatMap(o -> o)
                .map(text -> List.of(json.read(text, Value[].class)))
                .orElse(List.of());
    }

    public void append(
            long takeId,
            int number,
            Map<String, Take.Column> columns,
            Function<String, Optional<Value>> described) {
        db.sql("insert into take_chunk (take_id, number, content) values (?, ?, ?)")
                .params(takeId, number, TakeChunk.write(columns, described))
                .update();
    }

    /**
     * Makes one chunk of the many small ones from a number on; all of them or none, so that a crash
     * meanwhile loses nothing.
     */
    @Transactional
    public void compact(
            long takeId, int from, int to, Function<String, Optional<Value>> described) {
        List<byte[]> chunks =
                db.sql(
                                "select content from take_chunk where take_id = ? and number between ? and ? order by number")
                        .params(takeId, from, to)
                        .query((rs, n) -> rs.getBytes(1))
                        .list();
        if (chunks.size() < 2) {
            return;
        }
        TakeChunk.Joined joined = TakeChunk.join(chunks);
        if (joined.damaged() > 0) {
            // what cannot be read is left as it is: nothing is thrown away for good
            return;
        }
        byte[] one = TakeChunk.write(joined.columns(), described);
        db.sql("delete from take_chunk where take_id = ? and number between ? and ?")
                .params(takeId, from, to)
                .update();
        db.sql("insert into take_chunk (take_id, number, content) values (?, ?, ?)")
                .params(takeId, from, one)
                .update();
    }

    public void note(long takeId, String name, String note) {
        db.sql("update take set name = ?, note = ? where id = ?")
                .params(name, note, takeId)
                .update();
    }

    public void setAside(long takeId, boolean aside) {
        db.sql("update take set set_aside = ? where id = ?").params(aside, takeId).update();
    }

    public void mark(long takeId, double seconds, String text) {
        db.sql("insert into take_mark (take_id, seconds, text) values (?, ?, ?)")
                .params(takeId, seconds, Cut.to(LONGEST_MARK, text))
                .update();
    }

    /** Jobs in which a take runs at this moment. */
    public Set<Long> running() {
        return Set.copyOf(running);
    }

    /** A take began in a job, or came to its end. */
    public void runs(long jobId, boolean now) {
        if (now) {
            running.add(jobId);
        } else {
            running.remove(jobId);
        }
    }

    public void end(long takeId, Instant at) {
        db.sql("update take set ended = ? where id = ?").params(Jobs.time(at), takeId).update();
    }

    public List<TakeHead> of(long jobId) {
        return db.sql("select * from take where job_id = ? order by id desc")
                .param(jobId)
                .query(
                        (rs, n) ->
                                new TakeHead(
                                        rs.getLong("id"),
                                        rs.getLong("job_id"),
                                        rs.getString("name"),
                                        Jobs.time(rs, "started"),
                                        Jobs.maybeTime(rs, "ended"),
                                        rs.getString("circumstance"),
                                        rs.getString("note"),
                                        rs.getBoolean("set_aside"),
                                        rs.getString("source")))
                .list();
    }

    public Optional<TakeHead> head(long jobId, long id) {
        return of(jobId).stream().filter(t -> t.id() == id).findFirst();
    }

    /** A take that has ended, out of memory when it was read a short while ago. */
    public Take ended(TakeHead head) {
        if (head.ended().isEmpty()) {
            return read(head.id());
        }
        synchronized (recent) {
            return recent.computeIfAbsent(head.id(), this::read);
        }
    }

    public Take read(long takeId) {
        List<byte[]> chunks =
                db.sql("select content from take_chunk where take_id = ? order by number")
                        .param(takeId)
                        .query((rs, n) -> rs.getBytes(1))
                        .list();
        List<Take.Mark> marks =
                db.sql("select seconds, text from take_mark where take_id = ? order by seconds")
                        .param(takeId)
                        .query((rs, n) -> new Take.Mark(rs.getDouble(1), rs.getString(2)))
                        .list();
        TakeChunk.Joined joined = TakeChunk.join(chunks);
        return new Take(joined.columns(), marks, joined.damaged());
    }
}
