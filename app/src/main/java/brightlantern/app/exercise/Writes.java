package brightlantern.app.exercise;

import brightlantern.app.job.Jobs;
import brightlantern.app.link.OutputSession;
import brightlantern.app.page.JobPages;
import brightlantern.core.configuration.Configuration;
import brightlantern.core.configuration.Item;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireException;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/**
 * Tells modules something and keeps what they held before. The old state is kept before the first
 * byte is written, so that it is there whatever happens afterwards.
 */
@Repository
class Writes {
    private final JdbcClient db;

    Writes(JdbcClient db) {
        this.db = db;
    }

    /**
     * @param before and after: bytes in hexadecimal digits
     * @param confirmed whether the module was read back and held it
     */
    record Written(
            long id,
            long jobId,
            String configuration,
            String item,
            String before,
            String after,
            String who,
            Instant at,
            boolean confirmed) {}

    /**
     * What a module holds now, item → bytes.
     *
     * @throws WireException when it does not answer, or does not know an item
     */
    static Map<String, String> read(JobPages.Context context, Configuration c)
            throws WireException {
        Map<String, String> now = new LinkedHashMap<>();
        for (Item item : c.items()) {
            now.put(item.id(), read(context, c, item));
        }
        return now;
    }

    private static String read(JobPages.Context context, Configuration c, Item item)
            throws WireException {
        int address = context.description().module(c.module()).orElseThrow().address();
        return Item.hex(context.link().module(address).read(item.did()).toArray());
    }

    /**
     * Writes what differs, reads it back and compares.
     *
     * @param wanted item → bytes; what is not in it is left alone
     * @throws WireException when the module refuses, or holds something else afterwards
     */
    void write(
            JobPages.Context context,
            OutputSession session,
            Configuration c,
            Map<String, String> wanted,
            String who)
            throws WireException {
        for (Item item : c.items()) {
            String after = wanted.get(item.id());
            if (after == null) {
                continue;
            }
            String before = read(context, c, item);
            if (before.equals(after)) {
                continue;
            }
            long id = begin(context.job().id(), c.id(), item.id(), before, after, who);
            session.write(
                    item.did(),
                    Bytes.of(Item.bytes(after)),
                    "%s, %s: %s instead of %s"
                            .formatted(c.name(), item.name(), item.told(after), item.told(before)));
            String held = read(context, c, item);
            if (!held.equals(after)) {
                throw new WireException(
                        "%s, %s: %s was written, the module holds %s"
                                .formatted(
                                        c.name(), item.name(), item.told(after), item.told(held)));
            }
            db.sql("update configuration_write set confirmed = true where id = ?")
                    .param(id)
                    .update();
        }
    }

    private long begin(
            long job, String configuration, String item, String before, String after, String who) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql(
                        "insert into configuration_write (job_id, configuration, item, before, after, who, at)"
                                + " values (?, ?, ?, ?, ?, ?, ?)")
                .params(job, configuration, item, before, after, who, Jobs.time(Instant.now()))
                .update(key, "id");
        return key.getKeyAs(Long.class);
    }

    /** What was written in a job, newest first. */
    List<Written> of(long jobId, String configuration) {
        return db.sql(
                        "select * from configuration_write where job_id = ? and configuration = ? order by id desc")
                .params(jobId, configuration)
                .query(
                        (rs, n) ->
                                new Written(
                                        rs.getLong("id"),
                                        rs.getLong("job_id"),
                                        rs.getString("configuration"),
                                        rs.getString("item"),
                                        rs.getString("before"),
                                        rs.getString("after"),
                                        rs.getString("who"),
                                        Jobs.time(rs, "at"),
                                        rs.getBoolean("confirmed")))
                .list();
    }
}
