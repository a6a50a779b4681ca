package brightlantern.app.job;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Repairs that were authorised and done. */
@Repository
public class Repairs {
    /** Characters of a repair's name, and of who authorised it. */
    private static final int LONGEST = 200;

    private final JdbcClient db;

    Repairs(JdbcClient db) {
        this.db = db;
    }

    /**
     * @param failed the proof showed that it did not help
     */
    public record Repair(
            long id,
            Instant at,
            String suspectId,
            String name,
            String authorisedBy,
            String who,
            boolean failed) {}

    /**
     * Enters a repair, unless one waits for its proof already: two people, or one who clicks twice.
     *
     * @return whether it was entered
     */
    public synchronized boolean add(
            long jobId, String suspectId, String name, String authorisedBy, String who) {
        if (current(jobId).isPresent()) {
            return false;
        }
        db.sql(
                        "insert into repair (job_id, at, suspect_id, name, authorised_by, who) values (?, ?, ?, ?, ?, ?)")
                .params(
                        jobId,
                        Jobs.time(Instant.now()),
                        suspectId,
                        Cut.to(LONGEST, name),
                        Cut.to(LONGEST, authorisedBy),
                        who)
                .update();
        return true;
    }

    public void failed(long id) {
        db.sql("update repair set failed = true where id = ?").param(id).update();
    }

    /**
     * Takes back an entry that was a mistake.
     *
     * @return whether there was such an entry that counted
     */
    public boolean takeBack(long jobId, long id, String who) {
        return db.sql(
                                "update repair set taken_back_by = ? where job_id = ? and id = ? and taken_back_by is null")
                        .params(who, jobId, id)
                        .update()
                == 1;
    }

    /** Repairs that count, in their order. */
    public List<Repair> of(long jobId) {
        return db.sql("select * from repair where job_id = ? and taken_back_by is null order by id")
                .param(jobId)
                .query(
                        (rs, n) ->
                                new Repair(
                                        rs.getLong("id"),
                                        Jobs.time(rs, "at"),
                                        rs.getString("suspect_id"),
                                        rs.getString("name"),
                                        rs.getString("authorised_by"),
                                        rs.getString("who"),
                                        rs.getBoolean("failed")))
                .list();
    }

    /** The repair whose proof is under way. */
    public Optional<Repair> current(long jobId) {
        List<Repair> all = of(jobId);
        return all.isEmpty() || all.get(all.size() - 1).failed()
                ? Optional.empty()
                : Optional.of(all.get(all.size() - 1));
    }
}
