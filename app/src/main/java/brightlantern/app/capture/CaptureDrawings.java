package brightlantern.app.capture;

import brightlantern.app.page.Drawings;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.UnitChoices;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureReading;
import brightlantern.core.capture.CaptureStudy;
import brightlantern.core.capture.bus.BusReading;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;

/** Captures in which something was found, lane below lane. */
@Component
class CaptureDrawings implements Drawings {
    private static final int MOST = 2;

    /** To read a long capture takes its time; what decided is among the newest. */
    private static final int MOST_READ = 6;

    /** Of a bus so much is drawn: edges that stand closer are a block of ink. */
    private static final double BUS_BITS = 150;

    private final Captures captures;
    private final CaptureJudge judge;
    private final UnitChoices units;

    CaptureDrawings(Captures captures, CaptureJudge judge, UnitChoices units) {
        this.captures = captures;
        this.judge = judge;
        this.units = units;
    }

    @Override
    public List<Drawing> of(JobPages.Context context, Instant repaired) {
        List<Drawing> drawings = new ArrayList<>();
        List<Captures.Head> heads =
                captures.of(context.job().id()).stream()
                        .filter(h -> h.began().isBefore(repaired))
                        .limit(MOST_READ)
                        .toList();
        for (Captures.Head head : heads) {
            if (drawings.size() >= MOST) {
                break;
            }
            captures.open(head)
                    .ifPresent(
                            opened -> {
                                CaptureStudy.Read read =
                                        judge.read(opened, context.job(), context.description());
                                read.as(CaptureReading.class)
                                        .filter(r -> !r.holds())
                                        .ifPresent(r -> drawings.add(drawn(opened, r)));
                            });
        }
        return drawings;
    }

    private Drawing drawn(Captures.Opened opened, CaptureReading read) {
        Capture capture = opened.capture();
        int length = capture.length();
        if (read instanceof BusReading wires) {
            double bits = BUS_BITS / (1000 * wires.bus().kbit());
            length = (int) Math.max(2, Math.min(length, Math.round(bits / capture.interval())));
        }
        return new Drawing(
                opened.head().name() + ": " + read.sentence(),
                "capture/capture-paper",
                LanePaper.of(capture, opened.extents(), length, units));
    }
}
