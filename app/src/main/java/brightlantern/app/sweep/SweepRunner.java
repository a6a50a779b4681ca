package brightlantern.app.sweep;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Sweeps;
import brightlantern.app.link.VehicleLink;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.PageEvents;
import brightlantern.core.code.CodeWeigher;
import brightlantern.core.code.Dtc;
import brightlantern.core.code.DtcStatus;
import brightlantern.core.code.StandardCodes;
import brightlantern.core.code.StoredCode;
import brightlantern.core.signal.Scaling;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.Sweep.ModuleResult;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.Bytes;
import brightlantern.wire.NotThereException;
import brightlantern.wire.SilenceException;
import brightlantern.wire.WireException;
import brightlantern.wire.uds.DtcAnswers;
import brightlantern.wire.uds.NegativeResponseException;
import brightlantern.wire.uds.UdsClient;
import jakarta.annotation.PreDestroy;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Runs sweeps in the background: modules in parallel, each kept as soon as it is known. */
@Component
class SweepRunner {
    /** Standardised identifiers of ISO 14229-1:2013 table C.1, and how they are called here. */
    static final Map<Integer, String> IDENTITY = identity();

    /** Failing now, in this cycle, pending, confirmed, or failed since the clear. */
    private static final int STATUS_MASK = 0x2F;

    private static final int OCCURRENCES = 0x01;
    private static final int AGEING = 0x02;

    /** More modules than this at once would only wait for one another. */
    private static final int MOST_AT_ONCE = 160;

    private static final long KEEP_NANOS = 300_000_000L;

    /** How often the silent ones are asked once more at the end. */
    private static final int SILENT_AGAIN = 2;

    private final Sweeps sweeps;
    private final Findings findings;
    private final PageEvents events;
    private final NetworkFindings network;
    private final Map<Long, Running> running = new ConcurrentHashMap<>();
    private final ExecutorService workers =
            Executors.newCachedThreadPool(
                    r -> {
                        Thread thread = new Thread(r, "sweep");
                        thread.setDaemon(true);
                        return thread;
                    });

    SweepRunner(Sweeps sweeps, Findings findings, PageEvents events, NetworkFindings network) {
        this.network = network;
        this.sweeps = sweeps;
        this.findings = findings;
        this.events = events;
    }

    private static Map<Integer, String> identity() {
        Map<Integer, String> items = new LinkedHashMap<>();
        items.put(0xF190, "VIN");
        items.put(0xF187, "part number");
        items.put(0xF191, "hardware");
        items.put(0xF189, "software");
        items.put(0xF18C, "serial number");
        return items;
    }

    /** A sweep under way. */
    private static final class Running {
        final long sweepId;
        final String who;
        final Set<String> asking = ConcurrentHashMap.newKeySet();
        volatile boolean stopped;
        long kept = System.nanoTime();
        Sweep sweep;

        Running(long sweepId, String who, Sweep sweep) {
            this.sweepId = sweepId;
            this.who = who;
            this.sweep = sweep;
        }
    }

    boolean isRunning(long jobId) {
        return running.containsKey(jobId);
    }

    /** Modules that are being asked at this moment. */
    Set<String> asking(long jobId) {
        Running now = running.get(jobId);
        return now == null ? Set.of() : Set.copyOf(now.asking);
    }

    /**
     * Starts a sweep, or goes on with the newest one if it was left halfway and {@code resume} is
     * wanted.
     */
    synchronized void start(JobPages.Context context, String who, boolean resume) {
        Job job = context.job();
        if (running.containsKey(job.id())) {
            return;
        }
        Optional<Sweeps.Kept> newest = sweeps.newest(job.id());
        Running now;
        if (resume && newest.isPresent()) {
            List<ModuleResult> again =
                    newest.get().sweep().modules().stream()
                            .map(
                                    m ->
                                            m.answer() == Answer.ANSWERED
                                                    ? m
                                                    : ModuleResult.notAsked(
                                                            m.moduleId(), m.name(), m.bus()))
                            .toList();
            now =
                    new Running(
                            newest.get().id(),
                            who,
                            new Sweep(newest.get().sweep().started(), Optional.empty(), again));
        } else {
            List<ModuleResult> fresh =
                    context.description().modules().stream()
                            .map(m -> ModuleResult.notAsked(m.id(), m.name(), m.bus()))
                            .toList();
            Sweep sweep = new Sweep(Instant.now(), Optional.empty(), fresh);
            now = new Running(sweeps.add(job.id(), sweep), who, sweep);
        }
        running.put(job.id(), now);
        workers.execute(() -> run(context, now));
    }

    void stop(long jobId) {
        Running now = running.get(jobId);
        if (now != null) {
            now.stopped = true;
        }
    }

    private void run(JobPages.Context context, Running now) {
        // every module takes one request at a time, and all of them at once: their buses and answer
        // times set the pace, not this program
        ExecutorService askers =
                Executors.newFixedThreadPool(
                        Math.max(1, Math.min(MOST_AT_ONCE, now.sweep.modules().size())));
        try {
            askAll(context, now, askers, Answer.NOT_ASKED);
            // a module that flickers may answer the next time
            for (int again = 0; again < SILENT_AGAIN; again++) {
                askAll(context, now, askers, Answer.SILENT);
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        } catch (java.util.concurrent.ExecutionException broken) {
            findings.note(
                    context.job().id(),
                    "sweep",
                    now.who,
                    "The sweep broke off: " + broken.getCause());
        } finally {
            askers.shutdownNow();
            finish(context, now);
        }
    }

    private void askAll(JobPages.Context context, Running now, ExecutorService askers, Answer which)
            throws InterruptedException, java.util.concurrent.ExecutionException {
        List<java.util.concurrent.Future<?>> asked = new ArrayList<>();
        for (ModuleResult module : now.sweep.modules()) {
            if (module.answer() == which) {
                asked.add(askers.submit(() -> ask(context, now, module)));
            }
        }
        for (java.util.concurrent.Future<?> one : asked) {
            one.get();
        }
    }

    private void ask(JobPages.Context context, Running now, ModuleResult module) {
        if (now.stopped) {
            return;
        }
        now.asking.add(module.moduleId());
        events.changed(context.job().id(), "sweep");
        VehicleDescription.Module described =
                context.description().module(module.moduleId()).orElseThrow();
        ModuleResult result = askModule(context.link(), context.description(), described);
        now.asking.remove(module.moduleId());
        synchronized (now) {
            List<ModuleResult> modules =
                    now.sweep.modules().stream()
                            .map(m -> m.moduleId().equals(result.moduleId()) ? result : m)
                            .toList();
            now.sweep = new Sweep(now.sweep.started(), Optional.empty(), modules);
            // a large sweep is long to write: what came in is kept a few times a second
            if (System.nanoTime() - now.kept > KEEP_NANOS) {
                sweeps.update(now.sweepId, now.sweep);
                now.kept = System.nanoTime();
            }
        }
        events.changed(context.job().id(), "sweep");
    }

    private void finish(JobPages.Context context, Running now) {
        Job job = context.job();
        synchronized (now) {
            if (now.sweep.whole()) {
                now.sweep =
                        new Sweep(
                                now.sweep.started(),
                                Optional.of(Instant.now()),
                                now.sweep.modules());
            }
            sweeps.update(now.sweepId, now.sweep);
        }
        long silent = now.sweep.count(Answer.SILENT) + now.sweep.count(Answer.FAULTY);
        String text =
                "Sweep %s: %d of %d modules answered, %d code(s)."
                        .formatted(
                                now.sweep.whole() ? "done" : "stopped",
                                now.sweep.count(Answer.ANSWERED),
                                now.sweep.modules().size() - now.sweep.count(Answer.NOT_FITTED),
                                now.sweep.codes().size());
        findings.add(
                job.id(),
                "sweep",
                now.who,
                text,
                now.sweep.whole()
                        ? Optional.of(silent == 0 && now.sweep.codes().isEmpty())
                        : Optional.empty(),
                Optional.empty(),
                null);
        if (now.sweep.whole()) {
            codeEvidence(context, now);
            network.heard(context, now.who, now.sweep);
        }
        running.remove(job.id());
        events.changed(job.id(), "sweep");
    }

    /** Says of each code that the suspects speak of whether it is there. */
    private void codeEvidence(JobPages.Context context, Running now) {
        VehicleDescription description = context.description();
        Set<String> spoken =
                description.suspects().stream()
                        .flatMap(s -> s.codes().keySet().stream())
                        .collect(Collectors.toSet());
        if (network.suspected(context, now.sweep).isEmpty()) {
            // a lead code that nobody described speaks for something not on the list
            CodeWeigher.weigh(now.sweep.codes(), description, context.job().symptoms()).stream()
                    .filter(CodeWeigher.Weighed::lead)
                    .forEach(w -> spoken.add(w.code().code()));
        }
        for (String code : spoken) {
            String module =
                    description.codes().stream()
                            .filter(c -> c.code().equals(code))
                            .map(VehicleDescription.Code::module)
                            .findFirst()
                            .orElse("");
            boolean answered =
                    now.sweep.module(module).map(m -> m.answer() == Answer.ANSWERED).orElse(false);
            if (!answered) {
                continue;
            }
            Optional<StoredCode> found =
                    now.sweep.codes().stream()
                            .filter(
                                    c ->
                                            c.code().equals(code)
                                                    && c.statusByte().standing()
                                                            != DtcStatus.Standing.QUIET)
                            .findFirst();
            String name =
                    description.code(module, code).map(VehicleDescription.Code::name).orElse("");
            findings.add(
                    context.job().id(),
                    "sweep",
                    now.who,
                    code
                            + " "
                            + name
                            + ": "
                            + found.map(c -> c.statusByte().standing().words())
                                    .orElse("not stored"),
                    Optional.of(found.isEmpty()),
                    new Evidence.CodeSeen(code, found.isPresent()));
        }
    }

    static ModuleResult askModule(
            VehicleLink link, VehicleDescription description, VehicleDescription.Module module) {
        long start = System.nanoTime();
        Map<String, String> identity = new LinkedHashMap<>();
        List<StoredCode> codes = new ArrayList<>();
        Answer answer;
        String trouble = "";
        try {
            UdsClient client = link.module(module.address());
            for (Map.Entry<Integer, String> item : IDENTITY.entrySet()) {
                try {
                    identity.put(item.getValue(), client.read(item.getKey()).asText());
                } catch (NegativeResponseException lacks) {
                    // a module without this item is complete all the same
                    identity.put(item.getValue(), "");
                }
            }
            for (DtcAnswers.Entry entry : client.codes(STATUS_MASK)) {
                codes.add(code(client, description, module, entry));
            }
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
        long millis = (System.nanoTime() - start) / 1_000_000;
        return new ModuleResult(
                module.id(), module.name(), module.bus(), answer, trouble, identity, codes, millis);
    }

    private static StoredCode code(
            UdsClient client,
            VehicleDescription description,
            VehicleDescription.Module module,
            DtcAnswers.Entry entry)
            throws WireException {
        String code = new Dtc(entry.dtc()).toString();
        String name =
                description
                        .code(module.id(), code)
                        .map(VehicleDescription.Code::name)
                        .orElseGet(() -> StandardCodes.meaning(new Dtc(entry.dtc())));
        Map<Integer, VehicleDescription.Value> byDid = new LinkedHashMap<>();
        Map<Integer, Integer> sizes = new LinkedHashMap<>();
        module.freezeFrame().stream()
                .flatMap(id -> description.value(id).stream())
                .forEach(
                        v -> {
                            byDid.put(v.did(), v);
                            sizes.put(v.did(), v.bytes());
                        });
        List<StoredCode.Frame> frames = new ArrayList<>();
        int occurrences = -1;
        int ageing = -1;
        try {
            for (DtcAnswers.Snapshot snapshot : client.snapshots(entry.dtc(), 0xFF, sizes)) {
                Map<String, Double> values = new LinkedHashMap<>();
                snapshot.values()
                        .forEach(
                                (did, raw) ->
                                        values.put(
                                                byDid.get(did).id(),
                                                Scaling.physical(byDid.get(did), raw.toArray())));
                frames.add(new StoredCode.Frame(snapshot.record(), values));
            }
            Map<Integer, Bytes> more =
                    client.extendedData(entry.dtc(), 0xFF, Map.of(OCCURRENCES, 1, AGEING, 1));
            occurrences = more.containsKey(OCCURRENCES) ? more.get(OCCURRENCES).at(0) : -1;
            ageing = more.containsKey(AGEING) ? more.get(AGEING).at(0) : -1;
        } catch (NegativeResponseException lacks) {
            // the code stands without its frames
        }
        return new StoredCode(
                module.id(),
                module.name(),
                code,
                name,
                entry.status(),
                frames,
                occurrences,
                ageing);
    }

    @PreDestroy
    void close() {
        running.values().forEach(r -> r.stopped = true);
        workers.shutdownNow();
    }
}
