package brightlantern.app.sweep;

import brightlantern.app.link.VehicleLink;
import brightlantern.core.code.Code;
import brightlantern.core.code.Dtc;
import brightlantern.core.code.DtcStatus;
import brightlantern.core.code.StandardCodes;
import brightlantern.core.code.StoredCode;
import brightlantern.core.emission.EmissionReport;
import brightlantern.core.network.ControlModule;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.sweep.ProductionDate;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.Sweep.ModuleResult;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.Bytes;
import brightlantern.wire.NotThereException;
import brightlantern.wire.SilenceException;
import brightlantern.wire.WireException;
import brightlantern.wire.WireFormatException;
import brightlantern.wire.uds.DtcAnswers;
import brightlantern.wire.uds.NegativeResponseException;
import brightlantern.wire.uds.UdsClient;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Asks one module all that a sweep wants to know: who it is, what codes it holds and when they
 * came, and what it must tell of emissions. What cannot be read is told beside what could.
 */
final class ModuleAsker {
    /** Failing now, in this cycle, pending, confirmed, or failed since the clear. */
    static final int STATUS_MASK = 0x2F;

    private static final int ALL_RECORDS = 0xFF;
    private static final int ALL_SEVERITIES = 0xE0;

    /** Extended data of our vehicles; ISO 14229-1 leaves the numbers below 90 to the maker. */
    private static final int OCCURRENCES = 0x01;

    private static final int AGEING = 0x02;
    private static final int HEALING = 0x03;
    private static final Map<Integer, Integer> EXTENDED =
            Map.of(OCCURRENCES, 1, AGEING, 1, HEALING, 1);

    private static final int PRODUCTION_DATE = 0xF18B;

    private final UdsClient client;
    private final VehicleDescription description;
    private final ControlModule module;
    private final PatientAsker patience;

    private ModuleAsker(
            UdsClient client,
            VehicleDescription description,
            ControlModule module,
            boolean patient) {
        this.patience = new PatientAsker(patient);
        this.client = client;
        this.description = description;
        this.module = module;
    }

    /** Standardised identifiers of ISO 14229-1:2013 table C.1, and how they are called here. */
    private static final Map<Integer, String> IDENTITY = identity();

    private static Map<Integer, String> identity() {
        Map<Integer, String> items = new LinkedHashMap<>();
        items.put(0xF190, "VIN");
        items.put(0xF187, "part number");
        items.put(0xF191, "hardware");
        items.put(0xF189, "software");
        items.put(0xF18C, "serial number");
        items.put(PRODUCTION_DATE, "made on");
        return items;
    }

    /**
     * @param patient whether a first request without answer is sent again
     * @param cleared whether codes were cleared, so that their absence alone tells nothing and the
     *     state of their tests is asked for
     */
    static ModuleResult ask(
            VehicleLink link,
            VehicleDescription description,
            ControlModule module,
            boolean patient,
            boolean cleared) {
        long start = System.nanoTime();
        Map<String, String> identity = new LinkedHashMap<>();
        List<StoredCode> codes = new ArrayList<>();
        Optional<EmissionReport> emission = Optional.empty();
        Optional<Set<String>> notRun = Optional.empty();
        Answer answer;
        String trouble = "";
        try {
            ModuleAsker asker =
                    new ModuleAsker(link.module(module.address()), description, module, patient);
            asker.identity(identity);
            asker.codes(codes);
            emission = asker.emission().emission();
            notRun = cleared ? asker.notRun() : notRun;
            answer = Answer.ANSWERED;
        } catch (NotThereException unknown) {
            answer = Answer.NOT_FITTED;
        } catch (SilenceException silent) {
            answer = Answer.SILENT;
            trouble = silent.getMessage();
        } catch (WireException wrong) {
            answer = Answer.FAULTY;
            trouble = wrong.getMessage();
        }
        return new ModuleResult(
                module.id(),
                module.name(),
                module.bus(),
                answer,
                trouble,
                identity,
                codes,
                (System.nanoTime() - start) / 1_000_000,
                emission,
                notRun);
    }

    private EmissionAsker emission() {
        return new EmissionAsker(
                client, patience, module, dtc -> name(dtc, new Dtc(dtc).toString()));
    }

    /** Codes whose test has not run since the last clear; empty when the module does not tell. */
    private Optional<Set<String>> notRun() throws WireException {
        try {
            return Optional.of(
                    patience.asked(() -> client.supportedCodes()).stream()
                            .filter(
                                    e ->
                                            new DtcStatus(e.status())
                                                    .has(DtcStatus.NOT_RUN_SINCE_CLEAR))
                            .map(e -> new Dtc(e.dtc()).toString())
                            .collect(Collectors.toSet()));
        } catch (NegativeResponseException | WireFormatException lacks) {
            // it is known then that nothing is known
            return Optional.empty();
        }
    }

    /**
     * All codes that a module can set, with their present status (0x19 0A).
     *
     * @throws WireException when it does not tell
     */
    static List<StoredCode> supported(
            VehicleLink link, VehicleDescription description, ControlModule module)
            throws WireException {
        ModuleAsker asker =
                new ModuleAsker(link.module(module.address()), description, module, false);
        return asker.client.supportedCodes().stream().map(asker::bare).toList();
    }

    private StoredCode bare(DtcAnswers.Entry entry) {
        String code = new Dtc(entry.dtc()).toString();
        return new StoredCode(
                module.id(),
                module.name(),
                code,
                name(entry.dtc(), code),
                entry.status(),
                List.of(),
                -1,
                -1);
    }

    private void identity(Map<String, String> into) throws WireException {
        for (Map.Entry<Integer, String> item : IDENTITY.entrySet()) {
            try {
                Bytes raw = patience.asked(() -> client.read(item.getKey()));
                into.put(
                        item.getValue(),
                        item.getKey() == PRODUCTION_DATE
                                ? ProductionDate.text(raw.toArray())
                                : raw.asText());
            } catch (NegativeResponseException lacks) {
                // a module without this item is complete all the same
                into.put(item.getValue(), "");
            }
        }
    }

    /** The list of codes is kept before their details are asked for: those may be cut short. */
    private void codes(List<StoredCode> into) throws WireException {
        List<DtcAnswers.Entry> entries = patience.asked(() -> client.codes(STATUS_MASK));
        entries.forEach(e -> into.add(bare(e)));
        if (entries.isEmpty()) {
            return;
        }
        Map<Integer, Integer> severities = severities();
        Map<Integer, Long> frames = module.freezeFrame().isEmpty() ? frameCounts() : Map.of();
        for (int i = 0; i < entries.size(); i++) {
            int dtc = entries.get(i).dtc();
            into.set(
                    i,
                    detailed(
                            into.get(i),
                            dtc,
                            severities.getOrDefault(dtc, 0),
                            frames.getOrDefault(dtc, 0L)));
        }
    }

    private String name(int dtc, String code) {
        return description
                .code(module.id(), code)
                .map(Code::name)
                .orElseGet(() -> StandardCodes.meaning(new Dtc(dtc)));
    }

    private Map<Integer, Integer> severities() throws WireException {
        Map<Integer, Integer> severities = new HashMap<>();
        try {
            patience.asked(() -> client.severities(ALL_SEVERITIES, STATUS_MASK))
                    .forEach(s -> severities.put(s.dtc(), s.severity()));
        } catch (NegativeResponseException | WireFormatException lacks) {
            // many modules have no severity; the code stands without
        }
        return severities;
    }

    private Map<Integer, Long> frameCounts() throws WireException {
        Map<Integer, Long> counts = new HashMap<>();
        try {
            patience.asked(() -> client.snapshotIds())
                    .forEach(s -> counts.merge(s.dtc(), 1L, Long::sum));
        } catch (NegativeResponseException | WireFormatException lacks) {
            // then there are none to speak of
        }
        return counts;
    }

    private StoredCode detailed(StoredCode bare, int dtc, int severity, long undescribed)
            throws WireException {
        List<String> troubles = new ArrayList<>();
        List<StoredCode.Frame> frames = List.of();
        try {
            frames = undescribed > 0 ? List.of() : frames(dtc);
        } catch (NegativeResponseException lacks) {
            // the code stands without its frames
        } catch (WireFormatException torn) {
            troubles.add("Freeze frames not read: " + torn.getMessage() + ".");
        }
        if (undescribed > 0) {
            troubles.add(
                    undescribed
                            + (undescribed == 1 ? " freeze frame is" : " freeze frames are")
                            + " stored; nobody described what they hold.");
        }
        Map<Integer, Bytes> counters = Map.of();
        try {
            counters = patience.asked(() -> client.extendedData(dtc, ALL_RECORDS, EXTENDED));
        } catch (NegativeResponseException lacks) {
            // and without its counters
        } catch (WireFormatException torn) {
            troubles.add("Counters not read: " + torn.getMessage() + ".");
        }
        return new StoredCode(
                bare.moduleId(),
                bare.moduleName(),
                bare.code(),
                bare.name(),
                bare.status(),
                frames,
                counter(counters, OCCURRENCES).orElse(-1),
                counter(counters, AGEING).orElse(-1),
                counter(counters, HEALING),
                severity,
                String.join(" ", troubles));
    }

    private static Optional<Integer> counter(Map<Integer, Bytes> counters, int record) {
        return Optional.ofNullable(counters.get(record)).map(b -> b.at(0));
    }

    private List<StoredCode.Frame> frames(int dtc) throws WireException {
        Map<Integer, Value> byDid = new LinkedHashMap<>();
        Map<Integer, Integer> sizes = new LinkedHashMap<>();
        module.freezeFrame().stream()
                .flatMap(id -> description.value(id).stream())
                .forEach(
                        v -> {
                            byDid.put(v.did(), v);
                            sizes.put(v.did(), v.bytes());
                        });
        List<StoredCode.Frame> frames = new ArrayList<>();
        for (DtcAnswers.Snapshot snapshot :
                patience.asked(() -> client.snapshots(dtc, ALL_RECORDS, sizes))) {
            Map<String, Double> values = new LinkedHashMap<>();
            snapshot.values()
                    .forEach(
                            (did, raw) ->
                                    values.put(
                                            byDid.get(did).id(),
                                            Scaling.physical(byDid.get(did), raw.toArray())));
            frames.add(new StoredCode.Frame(snapshot.record(), values));
        }
        return frames;
    }
}
