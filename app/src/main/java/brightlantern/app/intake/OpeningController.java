package brightlantern.app.intake;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Visit;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vin;
import java.io.IOException;
import java.security.Principal;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** A job is opened: the vehicle is found, read, and its complaint told. */
@Controller
class OpeningController {
    private final Jobs jobs;
    private final VehicleLinks links;
    private final Findings findings;
    private final VehicleReading vehicleReading;
    private final EarlierJobs earlier;

    OpeningController(
            Jobs jobs,
            VehicleLinks links,
            Findings findings,
            VehicleReading vehicleReading,
            EarlierJobs earlier) {
        this.jobs = jobs;
        this.links = links;
        this.findings = findings;
        this.vehicleReading = vehicleReading;
        this.earlier = earlier;
    }

    @GetMapping("/jobs/new")
    String find(@RequestParam(name = "address", defaultValue = "") String address, Model model) {
        model.addAttribute("address", address);
        try {
            VehicleLinks.Search search =
                    links.find(Optional.of(address.trim()).filter(a -> !a.isEmpty()));
            model.addAttribute("found", search.found().stream().map(this::named).toList());
            model.addAttribute("troubles", search.troubles());
        } catch (IOException wrong) {
            model.addAttribute("found", List.of());
            model.addAttribute("troubles", List.of(wrong.getMessage()));
        }
        return "intake/find";
    }

    /** A vehicle that was found, with what it is. */
    record Found(String what, String vin, String address, String how) {}

    Found named(VehicleLinks.FoundVehicle f) {
        return new Found(
                vehicleReading
                        .descriptionOf(f.vin())
                        .map(VehicleDescription::name)
                        .orElse("a vehicle that nobody described"),
                f.vin(),
                f.address(),
                f.how());
    }

    @GetMapping("/jobs/new/vehicle")
    String vehicle(
            @RequestParam("address") String address,
            @RequestParam("vin") String announced,
            Model model) {
        VehicleReading.Reading reading = vehicleReading.read(address, announced);
        model.addAttribute("address", address);
        model.addAttribute("reading", reading);
        Optional<VehicleDescription> description = vehicleReading.descriptionOf(reading.vin());
        model.addAttribute("description", description.orElse(null));
        model.addAttribute(
                "systems", description.map(d -> d.causes().complaints()).orElse(Map.of()));
        model.addAttribute("earlierRepairs", description.map(Reasoners::written).orElse(List.of()));
        model.addAttribute("lamps", Visit.LAMPS);
        model.addAttribute("before", earlier.of(reading.vin(), 0));
        return "intake/new";
    }

    @PostMapping("/jobs")
    String open(
            @RequestParam("address") String address,
            @RequestParam("vin") String vin,
            @RequestParam("complaint") String complaint,
            @RequestParam(name = "symptom", required = false) List<String> symptoms,
            @RequestParam("odometer") String odometer,
            @RequestParam("earlier") String earlier,
            Visit visit,
            @RequestParam(name = "repaired", defaultValue = "") List<String> repaired,
            Principal who,
            RedirectAttributes flash) {
        double km;
        Vin checked;
        try {
            checked = new Vin(vin);
            // a vehicle whose modules are silent does not tell it, and a job opens all the same
            km = odometer.isBlank() ? Double.NaN : IntakeFields.number("Odometer", odometer);
            if (complaint.isBlank()) {
                throw new IllegalArgumentException(
                        "Complaint: expected what the customer says, found nothing.");
            }
            IntakeFields.notLonger("Complaint", complaint);
            IntakeFields.notLonger("Earlier repairs", earlier);
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
            flash.addFlashAttribute("complaint", complaint);
            flash.addFlashAttribute("earlier", earlier);
            flash.addFlashAttribute("visit", visit);
            flash.addFlashAttribute("odometer", odometer);
            flash.addFlashAttribute("symptoms", symptoms == null ? List.of() : symptoms);
            return "redirect:/jobs/new/vehicle?address=" + address + "&vin=" + vin;
        }
        Set<String> coded = new LinkedHashSet<>(symptoms == null ? List.of() : symptoms);
        Optional<VehicleDescription> description = links.library().fitting(checked);
        long id =
                jobs.add(
                        new Job(
                                0,
                                Instant.now(),
                                Optional.empty(),
                                who.getName(),
                                description.map(VehicleDescription::id).orElse(""),
                                checked.text(),
                                address,
                                address + ":5025",
                                complaint.trim(),
                                coded,
                                km,
                                earlier.trim(),
                                visit));
        description.ifPresent(d -> findings.driven(id, who.getName(), km, checked));
        description.ifPresent(d -> seed(id, d, coded, repaired, who.getName()));
        return "redirect:/jobs/" + id + "/intake";
    }

    /** A complaint as a finding tells it. */
    static String told(Symptom s) {
        return "Told: " + s.name() + ", " + s.when() + ".";
    }

    private void seed(
            long id,
            VehicleDescription d,
            Set<String> symptoms,
            List<String> repaired,
            String who) {
        d.symptoms().stream()
                .filter(s -> symptoms.contains(s.id()))
                .forEach(
                        s ->
                                findings.add(
                                        id,
                                        "intake",
                                        who,
                                        told(s),
                                        Optional.empty(),
                                        Optional.of(new Evidence.SymptomTold(s.id())),
                                        null));
        d.suspects().stream()
                .filter(s -> repaired.contains(s.id()))
                .forEach(
                        s ->
                                findings.add(
                                        id,
                                        "intake",
                                        who,
                                        "Done before without success: " + s.repair().name() + ".",
                                        Optional.empty(),
                                        Optional.of(new Evidence.RepairFailed(s.id())),
                                        null));
    }
}
