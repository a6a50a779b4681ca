package brightlantern.app.capture;

import brightlantern.core.capture.PackedSteps;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ForkJoinPool;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Samples of captures, each lane in compressed parts of about a second. */
@Repository
class CaptureParts {
    private final JdbcClient db;

    CaptureParts(JdbcClient db) {
        this.db = db;
    }

    /** Keeps the next part of all lanes, within the transaction of whoever asks. */
    void add(long capture, int n, List<short[]> lanes) {
        List<byte[]> packed = lanes.parallelStream().map(PackedSteps::pack).toList();
        for (int lane = 0; lane < lanes.size(); lane++) {
            db.sql(
                            "insert into capture_part (capture_id, n, lane, samples, content)"
                                    + " values (?, ?, ?, ?, ?)")
                    .params(capture, n, lane, lanes.get(lane).length, packed.get(lane))
                    .update();
        }
    }

    /**
     * Steps of each lane; parts are unpacked while the next ones are read. What is added meanwhile
     * is left out.
     *
     * @throws IllegalArgumentException when a part is torn
     */
    List<short[]> steps(long capture, int lanes) {
        List<short[]> all = new ArrayList<>();
        for (int lane = 0; lane < lanes; lane++) {
            all.add(new short[samples(capture, lane)]);
        }
        int[] at = new int[lanes];
        List<CompletableFuture<Void>> unpacking = new ArrayList<>();
        db.sql(
                        "select lane, samples, content from capture_part where capture_id = ?"
                                + " order by n, lane")
                .param(capture)
                .query(
                        rs -> {
                            short[] to = all.get(rs.getInt(1));
                            int count = rs.getInt(2);
                            int from = at[rs.getInt(1)];
                            if (from + count <= to.length) {
                                byte[] content = rs.getBytes(3);
                                at[rs.getInt(1)] += count;
                                unpacking.add(
                                        CompletableFuture.runAsync(
                                                () -> PackedSteps.unpack(content, count, to, from),
                                                ForkJoinPool.commonPool()));
                            }
                        });
        try {
            unpacking.forEach(CompletableFuture::join);
        } catch (CompletionException torn) {
            throw torn.getCause() instanceof IllegalArgumentException wrong ? wrong : torn;
        }
        return all;
    }

    private int samples(long capture, int lane) {
        return db.sql(
                        "select coalesce(sum(samples), 0) from capture_part where capture_id = ?"
                                + " and lane = ?")
                .params(capture, lane)
                .query(Integer.class)
                .single();
    }
}
