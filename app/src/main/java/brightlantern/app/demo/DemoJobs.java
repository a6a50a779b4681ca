package brightlantern.app.demo;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Json;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.picture.CasePictures;
import brightlantern.core.shelf.CaseFile;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vin;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/**
 * The jobs that the demo begins with. Only what people say is written here; what is measured has to
 * be measured.
 */
@Component
class DemoJobs {
    private final Jobs jobs;
    private final Findings findings;
    private final VehicleLinks links;
    private final DemoRecording recording;
    private final CasePictures shelf;
    private final Json json;

    DemoJobs(
            Jobs jobs,
            Findings findings,
            VehicleLinks links,
            DemoRecording recording,
            CasePictures shelf,
            Json json) {
        this.shelf = shelf;
        this.json = json;
        this.recording = recording;
        this.links = links;
        this.jobs = jobs;
        this.findings = findings;
    }

    /**
     * What a customer brings.
     *
     * @param symptoms ids of those that he tells
     * @param earlier what was done to the vehicle before
     */
    record Brought(
            String vehicleId,
            String vin,
            String address,
            String complaint,
            List<String> symptoms,
            String earlier) {}

    /** The jobs that were recorded, and one for each vehicle that is brought. */
    void fill(List<Brought> brought) {
        recording.restore();
        shelf.take(solved());
        brought.forEach(this::add);
    }

    /** What a robot solved at stand-ins in which parts drawn by their rates were broken. */
    private CaseFile solved() {
        try (InputStream in = DemoJobs.class.getResourceAsStream("/demo/cases.json")) {
            return json.read(new String(in.readAllBytes(), StandardCharsets.UTF_8), CaseFile.class);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    private double odometer(String vehicleId, String address) {
        VehicleDescription d = links.library().byId(vehicleId).orElseThrow();
        String id = d.live().odometer();
        return links.link(address).read(d, List.of(id)).getOrDefault(id, 0.0);
    }

    private void add(Brought b) {
        double odometer = odometer(b.vehicleId(), b.address());
        long id =
                jobs.add(
                        new Job(
                                0,
                                Instant.now(),
                                Optional.empty(),
                                "lead",
                                b.vehicleId(),
                                b.vin(),
                                b.address(),
                                b.address() + ":5025",
                                b.complaint(),
                                Set.copyOf(b.symptoms()),
                                odometer,
                                b.earlier()));
        findings.driven(id, "lead", odometer, new Vin(b.vin()));
        for (String symptom : b.symptoms()) {
            findings.add(
                    id,
                    "intake",
                    "lead",
                    "Told: " + told(b.vehicleId(), symptom) + ".",
                    Optional.empty(),
                    new Evidence.SymptomTold(symptom));
        }
    }

    private String told(String vehicleId, String symptom) {
        return links.library().byId(vehicleId).orElseThrow().symptoms().stream()
                .filter(s -> s.id().equals(symptom))
                .map(s -> s.name() + ", " + s.when())
                .findFirst()
                .orElse(symptom);
    }
}
