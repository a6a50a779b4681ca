package brightlantern.app.sweep;

import brightlantern.core.code.Dtc;
import brightlantern.core.emission.EmissionReport;
import brightlantern.core.emission.EmissionReport.EmissionCode;
import brightlantern.core.emission.MonitorResult;
import brightlantern.core.emission.Readiness;
import brightlantern.core.network.ControlModule;
import brightlantern.wire.WireException;
import brightlantern.wire.WireFormatException;
import brightlantern.wire.uds.NegativeResponseException;
import brightlantern.wire.uds.UdsClient;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;

/** Asks a module what it must tell of emissions (ISO 27145-3). */
final class EmissionAsker {
    private static final int EMISSION_GROUP = 0x33;

    private static final int READINESS = 0xF401;
    private static final int MONITORS_A_LIST = 0x20;

    private final UdsClient client;
    private final PatientAsker patience;
    private final ControlModule module;
    private final IntFunction<String> names;

    /**
     * @param names what a code is called, by its number
     */
    EmissionAsker(
            UdsClient client,
            PatientAsker patience,
            ControlModule module,
            IntFunction<String> names) {
        this.client = client;
        this.patience = patience;
        this.module = module;
        this.names = names;
    }

    /** Empty for a module without emission duties. */
    Optional<EmissionReport> emission() throws WireException {
        if (!module.emission()) {
            return Optional.empty();
        }
        List<String> troubles = new ArrayList<>();
        Optional<Readiness> readiness =
                part(
                        "Readiness",
                        troubles,
                        () ->
                                Readiness.decode(
                                        patience.asked(() -> client.read(READINESS)).toArray()));
        if (readiness.isEmpty() && troubles.isEmpty()) {
            return Optional.empty();
        }
        List<EmissionCode> codes =
                part(
                                "Emission codes",
                                troubles,
                                () ->
                                        patience
                                                .asked(
                                                        () ->
                                                                client.groupCodes(
                                                                        EMISSION_GROUP,
                                                                        ModuleAsker.STATUS_MASK))
                                                .stream()
                                                .map(c -> code(c.dtc(), c.status(), c.severity()))
                                                .toList())
                        .orElse(List.of());
        List<EmissionCode> permanent =
                part(
                                "Permanent codes",
                                troubles,
                                () ->
                                        patience
                                                .asked(() -> client.groupPermanent(EMISSION_GROUP))
                                                .stream()
                                                .map(c -> code(c.dtc(), c.status(), 0))
                                                .toList())
                        .orElse(List.of());
        List<MonitorResult> results =
                part("Monitor results", troubles, this::monitorResults).orElse(List.of());
        return Optional.of(new EmissionReport(readiness, codes, permanent, results, troubles));
    }

    private EmissionCode code(int dtc, int status, int severity) {
        String code = new Dtc(dtc).toString();
        return new EmissionCode(code, names.apply(dtc), status, severity);
    }

    private List<MonitorResult> monitorResults() throws WireException {
        List<MonitorResult> results = new ArrayList<>();
        List<Integer> monitors = new ArrayList<>();
        for (int base = 0; base < 0x100; base += MONITORS_A_LIST) {
            int list = MonitorResult.IDENTIFIER + base;
            List<Integer> found =
                    MonitorResult.supported(
                            base, patience.asked(() -> client.read(list)).toArray());
            // the last of each list says whether there is a further list
            boolean more = found.remove(Integer.valueOf(base + MONITORS_A_LIST));
            monitors.addAll(found);
            if (!more) {
                break;
            }
        }
        for (int monitor : monitors) {
            results.addAll(
                    MonitorResult.decode(
                            monitor,
                            patience.asked(() -> client.read(MonitorResult.IDENTIFIER + monitor))
                                    .toArray()));
        }
        return results;
    }

    /** A part that the module may refuse, or tell in a way that nobody understands. */
    private static <T> Optional<T> part(
            String what, List<String> troubles, PatientAsker.Question<T> question)
            throws WireException {
        try {
            return Optional.of(question.ask());
        } catch (NegativeResponseException lacks) {
            return Optional.empty();
        } catch (WireFormatException | IllegalArgumentException wrong) {
            troubles.add(what + " not read: " + wrong.getMessage() + ".");
            return Optional.empty();
        }
    }
}
