package brightlantern.app.demo;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
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

    DemoJobs(Jobs jobs, Findings findings, VehicleLinks links, DemoRecording recording) {
        this.recording = recording;
        this.links = links;
        this.jobs = jobs;
        this.findings = findings;
    }

    void fill(String complaintVin, String sisterVin) {
        recording.restore();
        add(
                complaintVin,
                "127.0.22.1",
                "Goes flat on long climbs, fine again after a restart.",
                Set.of("flat-on-climbs", "fine-after-restart"),
                "Vane actuator replaced last month elsewhere; the complaint stayed.");
        add(
                sisterVin,
                "127.0.22.2",
                "Driver swapped vans and says this one feels flat on climbs too.",
                Set.of("flat-on-climbs"),
                "Regular service only.");
    }

    private double odometer(String address) {
        VehicleDescription d = links.library().byId("tamarack-portage").orElseThrow();
        String id = d.live().odometer();
        return links.link(address).read(d, List.of(id)).getOrDefault(id, 0.0);
    }

    private void add(
            String vin, String address, String complaint, Set<String> symptoms, String earlier) {
        long id =
                jobs.add(
                        new Job(
                                0,
                                Instant.now(),
                                Optional.empty(),
                                "lead",
                                "tamarack-portage",
                                vin,
                                address,
                                address + ":5025",
                                complaint,
                                symptoms,
                                odometer(address),
                                earlier));
        for (String symptom : symptoms) {
            findings.add(
                    id,
                    "intake",
                    "lead",
                    "Told: " + symptom.replace('-', ' ') + ".",
                    Optional.empty(),
                    new Evidence.SymptomTold(symptom));
        }
    }
}
