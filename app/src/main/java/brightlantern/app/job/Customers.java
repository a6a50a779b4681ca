package brightlantern.app.job;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/**
 * What a job keeps of its customer: the words of the complaint, the plate, names, pictures, the
 * signature. What was found at the vehicle is the workshop's, and stays.
 */
@Repository
public class Customers {
    private static final Logger LOG = LoggerFactory.getLogger(Customers.class);
    private static final String FORGOTTEN = "forgotten on request";
    private static final long EVERY_MILLIS = 6 * 3600 * 1000L;

    private final JdbcClient db;
    private final Workshops workshops;
    private final Shelf shelf;

    Customers(JdbcClient db, Workshops workshops, Shelf shelf) {
        this.db = db;
        this.workshops = workshops;
        this.shelf = shelf;
    }

    /** Forgets what a closed job keeps of its customer. */
    @Transactional
    public void forget(long jobId) {
        db.sql(
                        "update job set complaint = ?, plate = '', customer = '', order_number = '',"
                                + " earlier = '' where id = ?")
                .params(FORGOTTEN, jobId)
                .update();
        db.sql("update repair set authorised_by = ? where job_id = ?")
                .params(FORGOTTEN, jobId)
                .update();
        for (String table : List.of("answer", "signature", "attachment")) {
            db.sql("delete from " + table + " where job_id = ?").param(jobId).update();
        }
        // notes are written by hand, and may tell of anybody
        db.sql(
                        "update finding set text = ? where job_id = ? and evidence is null and passed is null")
                .params(FORGOTTEN, jobId)
                .update();
        shelf.all().stream()
                .filter(c -> c.isOwn() && c.jobId() == jobId)
                .findFirst()
                .ifPresent(c -> shelf.add(c.withoutWords()));
    }

    /** Forgets the customers of jobs that were closed longer ago than the workshop keeps them. */
    @Scheduled(initialDelay = 60_000, fixedDelay = EVERY_MILLIS)
    void forgetOld() {
        int months = workshops.get().keepMonths();
        if (months > 0) {
            Instant before = Instant.now().atOffset(ZoneOffset.UTC).minusMonths(months).toInstant();
            List<Long> old = closedBefore(before);
            old.forEach(this::forget);
            if (!old.isEmpty()) {
                LOG.info("Forgot the customers of {} jobs closed before {}", old.size(), before);
            }
        }
    }

    private List<Long> closedBefore(Instant at) {
        return db.sql("select id from job where closed < ? and complaint <> ?")
                .params(Jobs.time(at), FORGOTTEN)
                .query(Long.class)
                .list();
    }
}
