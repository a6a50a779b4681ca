package brightlantern.app.exercise;

import brightlantern.app.job.Jobs;
import brightlantern.app.job.Json;
import brightlantern.app.page.Recordings;
import brightlantern.core.sound.InjectorSound;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** What recordings of injectors were judged as, cold and warm. */
@Repository
class KeptSounds implements Recordings {
    private final JdbcClient db;
    private final Json json;

    KeptSounds(JdbcClient db, Json json) {
        this.db = db;
        this.json = json;
    }

    void keep(long jobId, boolean warm, String who, InjectorSound.Verdict verdict) {
        db.sql("insert into injector_sound (job_id, warm, who, at, content) values (?, ?, ?, ?, ?)")
                .params(jobId, warm, who, Jobs.time(Instant.now()), json.write(verdict))
                .update();
    }

    Optional<InjectorSound.Verdict> newest(long jobId, boolean warm) {
        return db.sql(
                        "select content from injector_sound where job_id = ? and warm = ?"
                                + " order by id desc fetch first 1 row only")
                .params(jobId, warm)
                .query((rs, n) -> json.read(rs.getString(1), InjectorSound.Verdict.class))
                .optional();
    }

    @Override
    public List<Recording> of(long jobId) {
        return db.sql("select at, warm, who from injector_sound where job_id = ?")
                .param(jobId)
                .query(
                        (rs, n) ->
                                new Recording(
                                        Jobs.time(rs, "at"),
                                        "sound",
                                        rs.getBoolean("warm")
                                                ? "Injectors, warm"
                                                : "Injectors, cold",
                                        "",
                                        rs.getString("who"),
                                        "/jobs/%d/exercise/sound".formatted(jobId),
                                        false))
                .list();
    }
}
