package brightlantern.app.seat;

import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Pages of the driver's seats. */
@Controller
@RequestMapping("/seat")
class SeatController {
    private final DriversSeats seats;
    private final Jobs jobs;

    SeatController(DriversSeats seats, Jobs jobs) {
        this.seats = seats;
        this.jobs = jobs;
    }

    /** What was broken is told once every job of the vehicle is closed. */
    private String truth(DriversSeats.DriversSeat seat) {
        if (seat.truth().isEmpty()) {
            return "";
        }
        List<Job> its =
                jobs.all().stream()
                        .filter(j -> j.vin().equals(seat.vin()))
                        .filter(j -> j.opened().isAfter(seat.brokenAt()))
                        .toList();
        return !its.isEmpty() && its.stream().noneMatch(Job::isOpen)
                ? "It was: " + seat.truth().get() + "."
                : "Something is broken here. Open a job for it and close it, and this page tells what it was.";
    }

    private DriversSeats.DriversSeat seat(String address) {
        return seats.all().stream()
                .filter(s -> s.address().equals(address))
                .findFirst()
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND,
                                        "No stand-in runs at " + address + "."));
    }

    @GetMapping
    String list(Model model) {
        model.addAttribute("seats", seats.all());
        return "seat/seats";
    }

    @GetMapping("/{address}")
    String page(
            @PathVariable("address") String address,
            @RequestParam(name = "find", defaultValue = "") String find,
            Model model) {
        DriversSeats.DriversSeat seat = seat(address);
        model.addAttribute("seat", seat);
        model.addAttribute("find", find);
        model.addAttribute("breakable", Found.of(seat.breakable(), find));
        model.addAttribute("repairs", Found.of(seat.repairs(), find));
        model.addAttribute("wires", Found.of(seat.wires(), find));
        model.addAttribute("truth", truth(seat));
        return "seat/seat";
    }

    @GetMapping("/{address}/dashboard")
    String dashboard(@PathVariable("address") String address, Model model) {
        model.addAttribute("seat", seat(address));
        return "seat/seat :: dashboard";
    }

    @GetMapping("/{address}/injectors.wav")
    ResponseEntity<byte[]> injectors(@PathVariable("address") String address) {
        return seat(address)
                .injectors()
                .map(
                        wav ->
                                ResponseEntity.ok()
                                        .header("Content-Type", "audio/wav")
                                        .header(
                                                "Content-Disposition",
                                                "attachment; filename=\"injectors.wav\"")
                                        .body(wav))
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.CONFLICT,
                                        "Injectors are clicked with the engine off."));
    }

    @PostMapping("/{address}/{what}")
    String act(
            @PathVariable("address") String address,
            @PathVariable("what") String what,
            @RequestParam Map<String, String> form,
            RedirectAttributes flash) {
        DriversSeats.DriversSeat seat = seat(address);
        try {
            switch (what) {
                case "key" -> seat.key(Integer.parseInt(form.get("position")));
                case "crank" -> flash.addFlashAttribute("notice", seat.crank());
                case "drive" -> seat.drive(form.get("program"));
                case "hand" ->
                        seat.byHand(
                                Double.parseDouble(form.get("pedal")),
                                Integer.parseInt(form.get("gear")),
                                Double.parseDouble(form.get("slope")),
                                form.containsKey("brake"));
                case "charger" -> seat.charger(Boolean.parseBoolean(form.get("on")));
                case "trailer" -> seat.trailer(Boolean.parseBoolean(form.get("on")));
                case "hurry" -> seat.hurry(Integer.parseInt(form.get("factor")));
                case "plug" -> seat.plug(form.get("module"), Boolean.parseBoolean(form.get("on")));
                case "cut" -> seat.cut();
                case "act" -> {
                    String seen = seat.act(form.get("act"));
                    if (!seen.isEmpty()) {
                        flash.addFlashAttribute("notice", seen);
                    }
                }
                case "switch" -> seat.set(form.get("id"), Boolean.parseBoolean(form.get("on")));
                case "pins" -> flash.addFlashAttribute("notice", seat.pins(form.get("what")));
                case "moved" -> flash.addFlashAttribute("notice", seat.moved(form.get("what")));
                case "along" -> flash.addFlashAttribute("notice", seat.along(form.get("wire")));
                case "behind" -> flash.addFlashAttribute("notice", seat.behind(form.get("fuse")));
                case "break" ->
                        flash.addFlashAttribute(
                                "notice",
                                seat.breakIt(
                                        form.getOrDefault("part", ""), form.containsKey("beside")));
                case "repair" -> {
                    seat.repair(form.get("repair"));
                    flash.addFlashAttribute("notice", "The workshop did it on the stand-in.");
                }
                default ->
                        throw new ResponseStatusException(
                                HttpStatus.NOT_FOUND, "The seat has no control '" + what + "'.");
            }
        } catch (IllegalArgumentException | IllegalStateException | NullPointerException wrong) {
            flash.addFlashAttribute("error", "The seat did not take that: " + wrong.getMessage());
        }
        if (form.containsKey("find")) {
            flash.addAttribute("find", form.get("find"));
        }
        return "redirect:/seat/" + address;
    }
}
