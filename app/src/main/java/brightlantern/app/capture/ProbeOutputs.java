package brightlantern.app.capture;

import brightlantern.app.job.Cut;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.ProbeOutput;
import java.util.HashMap;
import java.util.Map;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What a volt of each probe was told to mean at an instrument, the last time. */
@Repository
class ProbeOutputs {
    private static final int LONGEST = 300;

    private final JdbcClient db;

    ProbeOutputs(JdbcClient db) {
        this.db = db;
    }

    /** By what a lane shows; what was never told is not in it. */
    Map<LaneRole, ProbeOutput> at(String instrument) {
        Map<LaneRole, ProbeOutput> all = new HashMap<>();
        db.sql("select * from probe_output where instrument = ?")
                .param(Cut.to(LONGEST, instrument.strip()))
                .query(
                        rs -> {
                            all.put(
                                    LaneRole.valueOf(rs.getString("role")),
                                    new ProbeOutput(
                                            rs.getDouble("per_volt"), rs.getDouble("zero")));
                        });
        return all;
    }

    /** Keeps what is told of the lanes of a plan; of a plain one nothing has to be kept. */
    void keep(String instrument, CapturePlan plan) {
        String at = Cut.to(LONGEST, instrument.strip());
        for (CapturePlan.Probe lane : plan.lanes()) {
            db.sql("delete from probe_output where instrument = ? and role = ?")
                    .params(at, lane.role().name())
                    .update();
            if (!lane.output().equals(ProbeOutput.PLAIN)) {
                db.sql("insert into probe_output values (?, ?, ?, ?)")
                        .params(
                                at,
                                lane.role().name(),
                                lane.output().perVolt(),
                                lane.output().zero())
                        .update();
            }
        }
    }
}
