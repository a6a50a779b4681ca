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

    /**
     * @param others VINs of the other stand-ins, in the launcher's order
     */
    void fill(String complaintVin, String sisterVin, List<String> others) {
        recording.restore();
        add(
                "tamarack-portage",
                complaintVin,
                DemoLauncher.ADDRESSES.get(0),
                "Goes flat on long climbs, fine again after a restart.",
                List.of("flat-on-climbs", "fine-after-restart"),
                "Vane actuator replaced last month elsewhere; the complaint stayed.");
        add(
                "tamarack-portage",
                sisterVin,
                DemoLauncher.ADDRESSES.get(1),
                "Driver swapped vans and says this one feels flat on climbs too.",
                List.of("flat-on-climbs"),
                "Regular service only.");
        List<Told> told =
                List.of(
                        new Told(
                                "Rough idle, and hard to start after filling up.",
                                List.of("rough-idle", "hard-start-after-fill"),
                                "A hose under the intake looked cracked and was left."),
                        new Told(
                                "After heavy rain: many warnings, parking brake stuck on, rear stays low.",
                                List.of("many-warnings", "park-brake-stuck", "rear-low"),
                                "Stood with its doors open the night before."),
                        new Told(
                                "Charges for forty minutes, then stops; cabin cooling is weak.",
                                List.of("charge-stops", "cooling-weak"),
                                "None known."),
                        new Told(
                                "Shakes, lost power, filter will not burn off.",
                                List.of("shakes", "no-power", "no-burn-off"),
                                "Injectors tested a year ago."),
                        new Told(
                                "Is the mileage true? I want to buy it.",
                                List.of("buying"),
                                "Service book with all stamps."));
        for (int i = 0; i < told.size(); i++) {
            add(
                    DemoLauncher.OTHERS.get(i),
                    others.get(i),
                    DemoLauncher.ADDRESSES.get(2 + i),
                    told.get(i).complaint(),
                    told.get(i).symptoms(),
                    told.get(i).earlier());
        }
    }

    /** What the customer says. */
    private record Told(String complaint, List<String> symptoms, String earlier) {}

    private double odometer(String vehicleId, String address) {
        VehicleDescription d = links.library().byId(vehicleId).orElseThrow();
        String id = d.live().odometer();
        return links.link(address).read(d, List.of(id)).getOrDefault(id, 0.0);
    }

    private void add(
            String vehicleId,
            String vin,
            String address,
            String complaint,
            List<String> symptoms,
            String earlier) {
        long id =
                jobs.add(
                        new Job(
                                0,
                                Instant.now(),
                                Optional.empty(),
                                "lead",
                                vehicleId,
                                vin,
                                address,
                                address + ":5025",
                                complaint,
                                Set.copyOf(symptoms),
                                odometer(vehicleId, address),
                                earlier));
        for (String symptom : symptoms) {
            findings.add(
                    id,
                    "intake",
                    "lead",
                    "Told: " + told(vehicleId, symptom) + ".",
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
