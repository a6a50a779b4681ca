package brightlantern.app.prove;

import brightlantern.app.job.Cut;
import brightlantern.app.job.Jobs;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What customers said to the ways of mending their vehicle. */
@Repository
class Answers {
    private static final int LONGEST_WAY = 300;
    private static final int LONGEST = 200;
    private static final int LONGEST_HOW = 60;

    private final JdbcClient db;

    Answers(JdbcClient db) {
        this.db = db;
    }

    /**
     * @param price that was told, in the workshop's currency
     * @param how they were asked
     * @param who noted it
     */
    record Answer(
            Instant at,
            String suspectId,
            String way,
            double price,
            boolean agreed,
            String byWhom,
            String how,
            String who) {}

    void add(long jobId, Answer answer) {
        db.sql(
                        "insert into answer (job_id, at, suspect_id, way, price, agreed, by_whom, how, who)"
                                + " values (?, ?, ?, ?, ?, ?, ?, ?, ?)")
                .params(
                        jobId,
                        Jobs.time(answer.at()),
                        answer.suspectId(),
                        Cut.to(LONGEST_WAY, answer.way()),
                        answer.price(),
                        answer.agreed(),
                        Cut.to(LONGEST, answer.byWhom()),
                        Cut.to(LONGEST_HOW, answer.how()),
                        answer.who())
                .update();
    }

    /** Of a job, the newest first. */
    List<Answer> of(long jobId) {
        return db.sql("select * from answer where job_id = ? order by id desc")
                .param(jobId)
                .query(
                        (rs, n) ->
                                new Answer(
                                        Jobs.time(rs, "at"),
                                        rs.getString("suspect_id"),
                                        rs.getString("way"),
                                        rs.getDouble("price"),
                                        rs.getBoolean("agreed"),
                                        rs.getString("by_whom"),
                                        rs.getString("how"),
                                        rs.getString("who")))
                .list();
    }

    /** What was agreed to last; empty when nothing was, or when it was refused later. */
    Optional<Answer> agreed(long jobId) {
        return of(jobId).stream().findFirst().filter(Answer::agreed);
    }
}
