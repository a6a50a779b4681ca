package brightlantern.app.job;

import brightlantern.core.sweep.Sweep;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/**
 * Kept sweeps; a sweep is kept from its first module on, so that nothing is lost when it is cut
 * short.
 */
@Repository
public class Sweeps {
    private static final String HEAD =
            "select s.id, s.job_id, s.started, s.modules, s.answered, s.codes, s.whole from sweep s ";

    private static final int REMEMBERED = 12;

    /**
     * More modules no vehicle has; a sweep that an earlier version let grow is read up to here, and
     * texts of it as far as a page could show them.
     */
    static final int MOST_MODULES = 600;

    private static final int LONGEST_TEXT = 4000;

    /** Pages read the same one or two sweeps again and again, and a large one is long to read. */
    private final Map<Long, Kept> remembered =
            new LinkedHashMap<>(16, 0.75f, true) {
                private static final long serialVersionUID = 1L;

                @Override
                protected boolean removeEldestEntry(Map.Entry<Long, Kept> eldest) {
                    return size() > REMEMBERED;
                }
            };

    private final JdbcClient db;
    private final Json json;

    Sweeps(JdbcClient db, Json json) {
        this.db = db;
        this.json = json;
    }

    /**
     * @param leftOut modules of it that are too many to be shown
     */
    public record Kept(long id, Sweep sweep, int leftOut) {}

    /**
     * What a list of sweeps tells of one.
     *
     * @param whole whether every module was asked
     */
    public record Head(
            long id,
            long jobId,
            Instant started,
            int modules,
            int answered,
            int codes,
            boolean whole) {}

    public long add(long jobId, Sweep sweep) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql("insert into sweep (job_id, started, content) values (?, ?, '')")
                .params(jobId, Jobs.time(sweep.started()))
                .update(key, "id");
        long id = key.getKeyAs(Long.class);
        update(id, sweep);
        return id;
    }

    public void update(long id, Sweep sweep) {
        synchronized (remembered) {
            remembered.put(id, new Kept(id, sweep, 0));
        }
        db.sql(
                        "update sweep set content = ?, finished = ?, modules = ?, answered = ?, codes = ?,"
                                + " whole = ? where id = ?")
                .param(json.write(sweep))
                .param(sweep.finished().map(Jobs::time).orElse(null))
                .param(sweep.modules().size())
                .param(sweep.count(Sweep.Answer.ANSWERED))
                .param(sweep.codes().size())
                .param(sweep.whole())
                .param(id)
                .update();
    }

    /** Sweeps of a job, newest first. */
    public List<Head> heads(long jobId) {
        return db.sql(HEAD + "where s.job_id = ? order by s.id desc")
                .param(jobId)
                .query((rs, n) -> head(rs))
                .list();
    }

    /** Sweeps of a vehicle in all its jobs, newest first. */
    public List<Head> headsOfVehicle(String vin) {
        return db.sql(HEAD + "join job j on j.id = s.job_id where j.vin = ? order by s.id desc")
                .param(vin)
                .query((rs, n) -> head(rs))
                .list();
    }

    private static Head head(ResultSet rs) throws SQLException {
        return new Head(
                rs.getLong("id"),
                rs.getLong("job_id"),
                Jobs.time(rs, "started"),
                rs.getInt("modules"),
                rs.getInt("answered"),
                rs.getInt("codes"),
                rs.getBoolean("whole"));
    }

    public Optional<Kept> newest(long jobId) {
        return heads(jobId).stream().findFirst().map(h -> read(h.id()));
    }

    public Optional<Kept> newestWhole(long jobId) {
        return heads(jobId).stream().filter(Head::whole).findFirst().map(h -> read(h.id()));
    }

    /** A sweep of a vehicle, whichever job it belongs to. */
    public Optional<Kept> ofVehicle(String vin, long id) {
        return headsOfVehicle(vin).stream()
                .filter(h -> h.id() == id)
                .findFirst()
                .map(h -> read(h.id()));
    }

    /** A kept sweep, whole; the newest that were read are remembered. */
    public Kept read(long id) {
        synchronized (remembered) {
            Kept known = remembered.get(id);
            if (known != null) {
                return known;
            }
        }
        Kept read = readAnew(id);
        synchronized (remembered) {
            remembered.put(id, read);
        }
        return read;
    }

    private Kept readAnew(long id) {
        return db.sql("select content from sweep where id = ?")
                .param(id)
                .query(
                        (rs, n) -> {
                            Json.Short<Sweep> its =
                                    json.readShort(
                                            rs.getCharacterStream("content"),
                                            "modules",
                                            MOST_MODULES,
                                            LONGEST_TEXT,
                                            Sweep.class);
                            return new Kept(id, its.read(), its.leftOut());
                        })
                .single();
    }
}
