package brightlantern.app.exercise;

import brightlantern.app.page.Format;
import brightlantern.core.code.Dtc;
import brightlantern.core.network.ControlModule;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.Step;
import brightlantern.core.procedure.Study;
import brightlantern.core.procedure.library.Studies;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.WireException;
import brightlantern.wire.uds.DtcAnswers;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Acts that find something out: stored codes, and the judgement of a study. */
final class KnowledgeExecutors {
    private static final int FAILS_NOW = 0x01;

    private final RunDesk desk;

    KnowledgeExecutors(RunDesk desk) {
        this.desk = desk;
    }

    void codes(Step step, Act.Codes codes) {
        desk.tell(new Event.Kept(step.id(), Map.of(codes.as(), stored(codes))));
    }

    void study(Step step, Act.Study study) {
        Study.Verdict v =
                Studies.judge(
                        study.study(),
                        new Study.Material(
                                desk.vehicle(),
                                desk.its.take(),
                                desk.its.stays(),
                                study.about(),
                                study.with(),
                                earlier()));
        desk.tell(
                new Event.Judged(step.id(), v.outcome(), v.passes(), v.sentence(), v.reasons()),
                v.evidence());
    }

    /** What the actuators of this vehicle did in all desk.its jobs. */
    private List<Study.Earlier> earlier() {
        return desk.tools.findings().ofVehicle(desk.its.context.job().vin()).stream()
                .filter(f -> f.evidence().orElse(null) instanceof Evidence.Run)
                .map(
                        f ->
                                new Study.Earlier(
                                        new Format().day(f.at()),
                                        (Evidence.Run) f.evidence().get()))
                .toList();
    }

    /** The stored codes of some modules, a line each. */
    private String stored(Act.Codes codes) {
        VehicleDescription d = desk.vehicle();
        List<String> lines = new ArrayList<>();
        for (String module : codes.modules()) {
            ControlModule m = d.module(module).orElseThrow();
            try {
                for (DtcAnswers.Entry e :
                        desk.its.context.link().module(m.address()).codes(ProcedureRuns.STORED)) {
                    String code = new Dtc(e.dtc()).toString();
                    lines.add(
                            m.name()
                                    + ", "
                                    + code
                                    + d.codes().stream()
                                            .filter(
                                                    known ->
                                                            known.code().equals(code)
                                                                    && known.module()
                                                                            .equals(module))
                                            .findFirst()
                                            .map(known -> " " + known.name())
                                            .orElse("")
                                    + ((e.status() & FAILS_NOW) != 0 ? Act.Codes.NOW : ""));
                }
            } catch (WireException silent) {
                lines.add(
                        m.name() + " did not tell desk.its codes: " + d.named(silent.getMessage()));
            }
        }
        return String.join("\n", lines);
    }
}
