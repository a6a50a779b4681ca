package brightlantern.app.job;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** Jobs in the database. */
@Repository
public class Jobs {
    private final JdbcClient db;

    Jobs(JdbcClient db) {
        this.db = db;
    }

    /** A time as the database takes it. */
    public static OffsetDateTime time(Instant at) {
        return at.atOffset(ZoneOffset.UTC);
    }

    /** A time as the database gives it. */
    public static Instant time(ResultSet rs, String column) throws SQLException {
        return rs.getObject(column, OffsetDateTime.class).toInstant();
    }

    public static Optional<Instant> maybeTime(ResultSet rs, String column) throws SQLException {
        return Optional.ofNullable(rs.getObject(column, OffsetDateTime.class))
                .map(OffsetDateTime::toInstant);
    }

    public long add(Job job) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        db.sql(
                        "insert into job (opened, opened_by, vehicle_id, vin, address, meter, complaint, symptoms, odometer,"
                                + " earlier, plate, customer, order_number, lamps)"
                                + " values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")
                .params(
                        time(job.opened()),
                        job.openedBy(),
                        job.vehicleId(),
                        job.vin(),
                        job.address(),
                        job.meter(),
                        job.complaint(),
                        String.join(",", job.symptoms()),
                        job.odometer(),
                        job.earlier(),
                        job.visit().plate(),
                        job.visit().customer(),
                        job.visit().order(),
                        String.join(";", job.visit().lamps()))
                .update(key, "id");
        return key.getKeyAs(Long.class);
    }

    /** Changes how its complaint is coded. */
    public void symptoms(long id, Set<String> symptoms) {
        db.sql("update job set symptoms = ? where id = ?")
                .params(String.join(",", symptoms), id)
                .update();
    }

    /** Minutes that finding the cause may take. */
    public double budget(long id) {
        return db.sql("select budget from job where id = ?").param(id).query(Double.class).single();
    }

    /** Changes them. */
    public void budget(long id, double minutes) {
        db.sql("update job set budget = ? where id = ?").params(minutes, id).update();
    }

    public List<Job> all() {
        return db.sql("select * from job order by closed is not null, opened desc")
                .query((rs, n) -> job(rs))
                .list();
    }

    public Optional<Job> byId(long id) {
        return db.sql("select * from job where id = ?")
                .param(id)
                .query((rs, n) -> job(rs))
                .optional();
    }

    private static Job job(ResultSet rs) throws SQLException {
        Set<String> symptoms =
                Stream.of(rs.getString("symptoms").split(","))
                        .filter(s -> !s.isEmpty())
                        .collect(Collectors.toCollection(LinkedHashSet::new));
        return new Job(
                rs.getLong("id"),
                time(rs, "opened"),
                maybeTime(rs, "closed"),
                rs.getString("opened_by"),
                rs.getString("vehicle_id"),
                rs.getString("vin"),
                rs.getString("address"),
                rs.getString("meter"),
                rs.getString("complaint"),
                symptoms,
                rs.getDouble("odometer"),
                rs.getString("earlier"),
                new Visit(
                        rs.getString("plate"),
                        rs.getString("customer"),
                        rs.getString("order_number"),
                        List.of(rs.getString("lamps").split(";"))));
    }

    public void meter(long id, String meter) {
        db.sql("update job set meter = ? where id = ?").params(meter, id).update();
    }

    public void address(long id, String address) {
        db.sql("update job set address = ? where id = ?").params(address, id).update();
    }

    /** Goes on with a closed job. */
    public void reopen(long id) {
        db.sql("update job set closed = null where id = ?").param(id).update();
    }

    public void close(long id, Instant at) {
        db.sql("update job set closed = ? where id = ?").params(time(at), id).update();
    }
}
