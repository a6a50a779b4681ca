package brightlantern.app.sweep;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.job.Fitted;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Sweeps;
import brightlantern.app.page.JobPages;
import brightlantern.core.code.DtcStatus;
import brightlantern.core.code.StoredCode;
import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkModel;
import brightlantern.core.network.NetworkReasoner;
import brightlantern.core.network.RollCall;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.Sweep.ModuleResult;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What sweeps and roll calls say of the network, and how it is handed to Trace. */
@Component
class NetworkFindings {
    /** A module that a sweep found silent was asked about so often. */
    private static final int ASKED_IN_A_SWEEP = 2;

    private final Findings findings;
    private final Fitted fitted;
    private final Sweeps sweeps;
    private final Repairs repairs;
    private final CommandLog log;
    private final Map<String, NetworkReasoner> reasoners = new ConcurrentHashMap<>();

    NetworkFindings(
            Findings findings, Fitted fitted, Sweeps sweeps, Repairs repairs, CommandLog log) {
        this.repairs = repairs;
        this.log = log;
        this.findings = findings;
        this.fitted = fitted;
        this.sweeps = sweeps;
    }

    Set<String> fitted(JobPages.Context context) {
        return fitted.of(context.job(), context.description());
    }

    private NetworkReasoner reasoner(VehicleDescription description) {
        return reasoners.computeIfAbsent(
                description.id(), id -> new NetworkReasoner(description.network()));
    }

    /** What a sweep alone lets one hear. */
    RollCall heardIn(VehicleDescription description, Sweep sweep) {
        Map<String, RollCall.Tally> calls = new HashMap<>();
        for (ModuleResult module : sweep.modules()) {
            boolean asked =
                    module.answer() != Answer.NOT_ASKED && module.answer() != Answer.NOT_FITTED;
            if (asked && !module.moduleId().equals(Network.GATEWAY)) {
                calls.put(
                        module.moduleId(),
                        new RollCall.Tally(
                                ASKED_IN_A_SWEEP,
                                module.answer() == Answer.SILENT ? 0 : ASKED_IN_A_SWEEP));
            }
        }
        return new RollCall(calls, read(sweep), misses(description, sweep));
    }

    private static Set<String> read(Sweep sweep) {
        return sweep.modules().stream()
                .filter(m -> m.answer() == Answer.ANSWERED)
                .map(ModuleResult::moduleId)
                .collect(Collectors.toSet());
    }

    private static Set<RollCall.Miss> misses(VehicleDescription description, Sweep sweep) {
        List<StoredCode> told =
                sweep.codes().stream()
                        .filter(c -> c.statusByte().standing() != DtcStatus.Standing.QUIET)
                        .toList();
        return description.codeTable().misses(told);
    }

    /**
     * Calls of a roll call, with the complaints of the newest whole sweep. What modules complained
     * of before a repair or before a clear says nothing of the network as it is now.
     */
    RollCall with(JobPages.Context context, Map<String, RollCall.Tally> calls) {
        long job = context.job().id();
        Optional<Instant> since =
                Stream.concat(
                                repairs.of(job).stream().map(Repairs.Repair::at),
                                log.times(job, CommandLog.CLEAR).stream())
                        .max(Instant::compareTo);
        Optional<Sweep> swept =
                sweeps.newestWhole(job)
                        .map(Sweeps.Kept::sweep)
                        .filter(s -> since.map(s.started()::isAfter).orElse(true));
        return new RollCall(
                calls,
                swept.map(NetworkFindings::read).orElse(Set.of()),
                swept.map(s -> misses(context.description(), s)).orElse(Set.of()));
    }

    NetworkReasoner.Ranking rank(JobPages.Context context, RollCall heard) {
        return reasoner(context.description()).rank(heard, fitted(context));
    }

    /** The newest sweep's ranking, when its modules watch one another. */
    Optional<NetworkReasoner.Ranking> rank(JobPages.Context context, Sweep sweep) {
        return watched(context.description())
                ? Optional.of(rank(context, heardIn(context.description(), sweep)))
                : Optional.empty();
    }

    /** The element that a sweep alone points to, if it does. */
    Optional<NetworkModel.Element> suspected(JobPages.Context context, Sweep sweep) {
        return rank(context, sweep)
                .map(NetworkReasoner.Ranking::lead)
                .filter(s -> s.sureness() >= 0.5)
                .flatMap(NetworkReasoner.Standing::element);
    }

    /** Whether messages between two modules are lost when an element is broken. */
    boolean lost(
            VehicleDescription description, NetworkModel.Element element, String from, String to) {
        return reasoner(description).model().link(element, 0, from, to) < 0.5;
    }

    static boolean watched(VehicleDescription description) {
        return description.modules().stream().anyMatch(m -> !m.watches().isEmpty());
    }

    /** Hands what a whole sweep heard to Trace. */
    void heard(JobPages.Context context, String who, Sweep sweep) {
        if (watched(context.description())) {
            keep(context, who, heardIn(context.description(), sweep), "Sweep");
        }
    }

    /** Hands what was heard to Trace. */
    void keep(JobPages.Context context, String who, RollCall heard, String how) {
        Set<String> has = fitted(context);
        List<String> quiet =
                heard.calls().entrySet().stream()
                        .filter(c -> has.contains(c.getKey()) && c.getValue().rate() < 0.97)
                        .map(Map.Entry::getKey)
                        .toList();
        boolean passed = quiet.isEmpty() && heard.misses().isEmpty();
        String text =
                passed
                        ? how + ": every fitted module answers and none misses another."
                        : "%s: %s silent or flickering, %s about missing messages. %s"
                                .formatted(
                                        how,
                                        Words.count(quiet.size(), "module"),
                                        Words.count(heard.misses().size(), "complaint"),
                                        rank(context, heard).sentence());
        findings.add(
                context.job().id(),
                "sweep",
                who,
                text,
                Optional.of(passed),
                new Evidence.Heard(heard, has, passed));
    }
}
