package brightlantern.app.job;

import brightlantern.core.network.ControlModule;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/**
 * Which modules a vehicle really has: all described ones, save those that its gateway does not
 * know, corrected by hand with a reason.
 */
@Repository
public class Fitted {
    private final JdbcClient db;
    private final Sweeps sweeps;

    Fitted(JdbcClient db, Sweeps sweeps) {
        this.db = db;
        this.sweeps = sweeps;
    }

    /** A correction by hand. */
    public record Correction(String module, boolean fitted, String reason, String who) {}

    public List<Correction> corrections(String vin) {
        return db.sql("select * from fitted where vin = ?")
                .param(vin)
                .query(
                        (rs, n) ->
                                new Correction(
                                        rs.getString("module"),
                                        rs.getBoolean("fitted"),
                                        rs.getString("reason"),
                                        rs.getString("who")))
                .list();
    }

    public void correct(String vin, String module, boolean fitted, String reason, String who) {
        db.sql("merge into fitted (vin, module, fitted, reason, who, at) values (?, ?, ?, ?, ?, ?)")
                .params(vin, module, fitted, reason, who, Jobs.time(Instant.now()))
                .update();
    }

    /** Ids of the modules that the vehicle of a job has, as far as is known. */
    public Set<String> of(Job job, VehicleDescription description) {
        Map<String, Boolean> byHand =
                corrections(job.vin()).stream()
                        .collect(Collectors.toMap(Correction::module, Correction::fitted));
        Optional<Sweep> newest = sweeps.newest(job.id()).map(Sweeps.Kept::sweep);
        Set<String> fitted = new LinkedHashSet<>();
        for (ControlModule module : description.modules()) {
            boolean unknown =
                    newest.flatMap(s -> s.module(module.id()))
                            .map(r -> r.answer() == Sweep.Answer.NOT_FITTED)
                            .orElse(false);
            if (byHand.getOrDefault(module.id(), !unknown)) {
                fitted.add(module.id());
            }
        }
        return fitted;
    }
}
