package brightlantern.app.intake;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Shelf;
import brightlantern.app.job.Sweeps;
import brightlantern.app.job.Takes;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.JobPages;
import brightlantern.core.shelf.ShelfCase;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vin;
import brightlantern.wire.WireException;
import brightlantern.wire.transport.VehicleAddress;
import java.io.IOException;
import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The list of jobs, the making of a new one, and the Intake page. */
@Controller
class IntakeController {
    /**
     * UDS address that most engine modules of a fleet without description will not have; the VIN
     * then comes from DoIP.
     */
    private static final int VIN_IDENTIFIER = 0xF190;

    private static final double ALIKE = 0.2;

    private final JobPages pages;
    private final Jobs jobs;
    private final VehicleLinks links;
    private final Findings findings;
    private final Sweeps sweeps;
    private final Shelf shelf;
    private final CommandLog log;
    private final Takes takes;

    IntakeController(
            JobPages pages,
            Jobs jobs,
            VehicleLinks links,
            Findings findings,
            Sweeps sweeps,
            Shelf shelf,
            CommandLog log,
            Takes takes) {
        this.takes = takes;
        this.pages = pages;
        this.jobs = jobs;
        this.links = links;
        this.findings = findings;
        this.sweeps = sweeps;
        this.shelf = shelf;
        this.log = log;
    }

    @GetMapping("/")
    String jobs(
            @RequestParam(name = "find", defaultValue = "") String find,
            @RequestParam(name = "state", defaultValue = "") String state,
            @RequestParam(name = "sort", defaultValue = "") String sort,
            Model model) {
        model.addAttribute(
                "list",
                JobList.of(jobs.all(), links.library(), takes.running(), find, state, sort));
        model.addAttribute("mistakes", links.library().mistakes());
        return "intake/jobs";
    }

    @GetMapping("/shelf")
    String shelf(Model model) {
        model.addAttribute("cases", shelf.all());
        return "intake/shelf";
    }

    @GetMapping("/log")
    String log(Model model) {
        model.addAttribute("lines", log.newest(500));
        return "intake/log";
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

    private Found named(VehicleLinks.FoundVehicle f) {
        return new Found(
                descriptionOf(f.vin())
                        .map(VehicleDescription::name)
                        .orElse("a vehicle that nobody described"),
                f.vin(),
                f.address(),
                f.how());
    }

    /**
     * What was read of a vehicle before a job is opened.
     *
     * @param trouble in words; empty when all went well
     */
    record Reading(
            String vin,
            String vinWords,
            boolean vinGood,
            OptionalDouble odometer,
            String trouble) {}

    @GetMapping("/jobs/new/vehicle")
    String vehicle(
            @RequestParam("address") String address,
            @RequestParam("vin") String announced,
            Model model) {
        Reading reading = read(address, announced);
        model.addAttribute("address", address);
        model.addAttribute("reading", reading);
        Optional<VehicleDescription> description = descriptionOf(reading.vin());
        model.addAttribute("description", description.orElse(null));
        model.addAttribute(
                "open",
                jobs.all().stream()
                        .filter(j -> j.isOpen() && j.vin().equals(reading.vin()))
                        .toList());
        return "intake/new";
    }

    private Optional<VehicleDescription> descriptionOf(String vin) {
        try {
            return links.library().fitting(new Vin(vin));
        } catch (IllegalArgumentException bad) {
            return Optional.empty();
        }
    }

    private Reading read(String address, String announced) {
        String vin = announced;
        String trouble = "";
        OptionalDouble odometer = OptionalDouble.empty();
        Optional<VehicleDescription> description = descriptionOf(announced);
        if (description.isPresent()) {
            VehicleDescription d = description.get();
            try {
                int address16 = d.module(d.live().vinModule()).orElseThrow().address();
                vin = links.link(address).module(address16).read(VIN_IDENTIFIER).asText();
                Double km =
                        links.link(address)
                                .read(d, List.of(d.live().odometer()))
                                .get(d.live().odometer());
                odometer = km == null ? OptionalDouble.empty() : OptionalDouble.of(km);
            } catch (WireException silent) {
                trouble =
                        silent.getMessage()
                                + ". "
                                + links.link(address).power()
                                + " The VIN shown is the one the gateway told.";
            }
        }
        try {
            Vin checked = new Vin(vin);
            boolean good = checked.checkDigitHolds();
            return new Reading(
                    vin,
                    good
                            ? "Check digit " + checked.expectedCheckDigit() + " is right."
                            : "Check digit is wrong: expected "
                                    + checked.expectedCheckDigit()
                                    + ", found "
                                    + checked.text().charAt(8)
                                    + ". Compare with the plate.",
                    good,
                    odometer,
                    trouble);
        } catch (IllegalArgumentException bad) {
            return new Reading(vin, bad.getMessage(), false, odometer, trouble);
        }
    }

    @PostMapping("/jobs")
    String open(
            @RequestParam("address") String address,
            @RequestParam("vin") String vin,
            @RequestParam("complaint") String complaint,
            @RequestParam(name = "symptom", required = false) List<String> symptoms,
            @RequestParam("odometer") String odometer,
            @RequestParam("earlier") String earlier,
            @RequestParam(name = "plate", defaultValue = "") String plate,
            @RequestParam(name = "repaired", required = false) List<String> repaired,
            Principal who,
            RedirectAttributes flash) {
        double km;
        Vin checked;
        try {
            checked = new Vin(vin);
            km = number("Odometer", odometer);
            if (complaint.isBlank()) {
                throw new IllegalArgumentException(
                        "Complaint: expected what the customer says, found nothing.");
            }
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
            flash.addFlashAttribute("complaint", complaint);
            flash.addFlashAttribute("earlier", earlier);
            flash.addFlashAttribute("plate", plate);
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
                                plate.trim().substring(0, Math.min(20, plate.trim().length()))));
        description.ifPresent(
                d -> {
                    seed(id, d, coded, repaired == null ? List.of() : repaired, who.getName());
                });
        return "redirect:/jobs/" + id + "/intake";
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
                                        "Told: " + s.name() + ", " + s.when() + ".",
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

    /**
     * A number as people type it, with point or comma.
     *
     * @throws IllegalArgumentException names the field and what was found
     */
    static double number(String field, String text) {
        try {
            double value = Double.parseDouble(text.trim().replace(',', '.'));
            if (Double.isFinite(value) && value >= 0) {
                return value;
            }
        } catch (NumberFormatException letters) {
            // told below with the field's name
        }
        throw new IllegalArgumentException(field + ": expected a number, found '" + text + "'.");
    }

    record Stored(String module, String vin, boolean same) {}

    record Alike(ShelfCase found, int percent, List<String> reasons) {}

    @GetMapping("/jobs/{id}/intake")
    String intake(@PathVariable("id") long id, Model model) {
        Job job = pages.job(id);
        JobPages.Context context = pages.fill(id, "intake", model);
        Optional<Sweep> newest = sweeps.newest(id).map(Sweeps.Kept::sweep);
        List<Stored> vins = new ArrayList<>();
        newest.ifPresent(
                s ->
                        s.modules().stream()
                                .filter(m -> !m.identity().getOrDefault("VIN", "").isEmpty())
                                .forEach(
                                        m ->
                                                vins.add(
                                                        new Stored(
                                                                m.name(),
                                                                m.identity().get("VIN"),
                                                                m.identity()
                                                                        .get("VIN")
                                                                        .equals(job.vin())))));
        model.addAttribute("vins", vins);
        model.addAttribute(
                "told",
                context.description().symptoms().stream()
                        .filter(s -> job.symptoms().contains(s.id()))
                        .toList());
        model.addAttribute("vinGood", new Vin(job.vin()).checkDigitHolds());
        Set<String> codes =
                newest.map(s -> s.codes().stream().map(c -> c.code()).collect(Collectors.toSet()))
                        .orElse(Set.of());
        Map<String, String> names =
                context.description().symptoms().stream()
                        .collect(Collectors.toMap(Symptom::id, s -> s.name() + " " + s.when()));
        model.addAttribute(
                "alike",
                shelf.all().stream()
                        .filter(c -> c.jobId() != id)
                        .map(c -> c.match(job.vehicleId(), job.symptoms(), codes).named(names))
                        .filter(m -> m.likeness() >= ALIKE)
                        .sorted(Comparator.comparingDouble(ShelfCase.Match::likeness).reversed())
                        .map(
                                m ->
                                        new Alike(
                                                m.found(),
                                                (int) Math.round(100 * m.likeness()),
                                                m.reasons()))
                        .limit(5)
                        .toList());
        return "intake/intake";
    }

    @PostMapping("/jobs/{id}/note")
    String note(
            @PathVariable("id") long id,
            @RequestParam("stage") String stage,
            @RequestParam("text") String text,
            Principal who) {
        pages.job(id);
        if (!text.isBlank() && JobPages.STAGES.contains(stage)) {
            findings.note(id, stage, who.getName(), text.trim());
        }
        return "redirect:/jobs/" + id + "/" + (JobPages.STAGES.contains(stage) ? stage : "intake");
    }

    @PostMapping("/jobs/{id}/address")
    String address(
            @PathVariable("id") long id,
            @RequestParam("address") String address,
            RedirectAttributes flash) {
        pages.job(id);
        try {
            jobs.address(id, VehicleAddress.parse(address).text());
        } catch (IllegalArgumentException malformed) {
            flash.addFlashAttribute("error", malformed.getMessage());
        }
        return "redirect:/jobs/" + id + "/intake";
    }

    /** The vehicle as it is reached now, for a person who asks why nothing answers. */
    @GetMapping("/jobs/{id}/link")
    @org.springframework.web.bind.annotation.ResponseBody
    Map<String, Object> link(@PathVariable("id") long id) {
        return Map.of("head", pages.head(pages.context(id)));
    }
}
