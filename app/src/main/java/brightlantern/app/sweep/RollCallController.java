package brightlantern.app.sweep;

import brightlantern.app.job.Fitted;
import brightlantern.app.page.JobPages;
import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkReasoner;
import brightlantern.core.network.RollCall;
import brightlantern.core.vehicle.VehicleDescription;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The roll call: who is there, live, and where the wire must be broken. */
@Controller
@RequestMapping("/jobs/{id}/sweep/roll-call")
class RollCallController {
    private final JobPages pages;
    private final RollCaller caller;
    private final NetworkFindings network;
    final Fitted fitted;

    RollCallController(JobPages pages, RollCaller caller, NetworkFindings network, Fitted fitted) {
        this.pages = pages;
        this.caller = caller;
        this.network = network;
        this.fitted = fitted;
    }

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        show(pages.fill(id, "sweep", model), model);
        return "sweep/rollcall";
    }

    @GetMapping("/now")
    String now(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.context(id);
        model.addAttribute("job", context.job());
        show(context, model);
        return "sweep/rollcall :: now";
    }

    private void show(JobPages.Context context, Model model) {
        VehicleDescription d = context.description();
        Optional<RollCaller.Call> call = caller.of(context.job().id());
        Set<String> has = network.fitted(context);
        RollCall heard = network.with(context, call.map(RollCaller.Call::tallies).orElse(Map.of()));
        NetworkReasoner.Ranking ranking = network.rank(context, heard);
        boolean known = call.isPresent() || !heard.read().isEmpty();
        model.addAttribute("running", call.map(RollCaller.Call::running).orElse(false));
        model.addAttribute("called", call.isPresent());
        model.addAttribute("watched", NetworkFindings.watched(d));
        model.addAttribute(
                "answer",
                known
                        ? ranking.sentence()
                        : "Call the roll: every module is asked again and again whether it is there.");
        model.addAttribute("rows", rows(context, call, has));
        model.addAttribute(
                "elements",
                ranking.standings().stream()
                        .limit(RollCallRows.SHOWN)
                        .map(RollCallRows::element)
                        .toList());
        model.addAttribute("matrix", RollCallRows.matrix(d, heard));
        Optional<NetworkReasoner.Standing> lead =
                Optional.of(ranking.lead()).filter(s -> s.sureness() >= 0.5);
        model.addAttribute(
                "map",
                BusMap.of(
                        d,
                        m -> RollCallRows.mark(m, call, has),
                        lead.flatMap(NetworkReasoner.Standing::element)));
    }

    List<RollCallRows.Row> rows(
            JobPages.Context context, Optional<RollCaller.Call> call, Set<String> has) {
        List<RollCallRows.Row> rows = new ArrayList<>();
        List<Fitted.Correction> byHand = fitted.corrections(context.job().vin());
        for (ControlModule m : context.description().modules()) {
            if (m.id().equals(Network.GATEWAY)) {
                continue;
            }
            Optional<RollCaller.Heard> heard = call.map(c -> c.heard().get(m.id()));
            RollCall.Tally tally =
                    heard.map(RollCaller.Heard::tally).orElse(new RollCall.Tally(0, 0));
            double millis = heard.map(RollCaller.Heard::millis).orElse(Double.NaN);
            rows.add(
                    new RollCallRows.Row(
                            m.id(),
                            m.name(),
                            context.description().buses().stream()
                                    .filter(b -> b.id().equals(m.bus()))
                                    .findFirst()
                                    .map(Bus::name)
                                    .orElse(""),
                            has.contains(m.id())
                                    ? heard.map(RollCaller.Heard::state).orElse("waiting")
                                    : "absent",
                            RollCallRows.rate(tally),
                            RollCallRows.rate(
                                    heard.map(RollCaller.Heard::running)
                                            .orElse(new RollCall.Tally(0, 0))),
                            tally.asked() == 0 ? "" : tally.answered() + " of " + tally.asked(),
                            Double.isNaN(millis)
                                    ? ""
                                    : String.format(Locale.ROOT, "%.0f ms", millis),
                            heard.map(RollCaller.Heard::changes).orElse(0),
                            has.contains(m.id()),
                            byHand.stream()
                                    .filter(c -> c.module().equals(m.id()))
                                    .findFirst()
                                    .map(c -> c.reason() + " (" + c.who() + ")")
                                    .orElse("")));
        }
        return rows;
    }

    @PostMapping("/start")
    String start(@PathVariable("id") long id, Principal who, RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        if (context.keyOff()) {
            flash.addFlashAttribute(
                    "error",
                    "The key is off, says the vehicle: its modules sleep and would all be called absent. Turn the key on, then call the roll.");
        } else {
            caller.start(context, network.fitted(context), who.getName());
        }
        return "redirect:/jobs/" + id + "/sweep/roll-call";
    }

    @PostMapping("/stop")
    String stop(@PathVariable("id") long id) {
        caller.stop(id);
        return "redirect:/jobs/" + id + "/sweep/roll-call";
    }

    @PostMapping("/keep")
    String keep(@PathVariable("id") long id, Principal who, RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Optional<RollCaller.Call> call = caller.of(id);
        if (call.isEmpty() || call.get().tallies().values().stream().allMatch(t -> t.asked() < 5)) {
            flash.addFlashAttribute(
                    "error", "Nothing to keep yet: every module has to be asked a few times.");
        } else {
            network.keep(
                    context,
                    who.getName(),
                    network.with(context, call.get().tallies()),
                    "Roll call");
            flash.addFlashAttribute("notice", "Kept; Trace weighs it with everything else.");
        }
        return "redirect:/jobs/" + id + "/sweep/roll-call";
    }

    @PostMapping("/fitted")
    String fitted(
            @PathVariable("id") long id,
            @RequestParam("module") String module,
            @RequestParam("fitted") boolean has,
            @RequestParam("reason") String reason,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        if (context.description().module(module).isEmpty() || reason.isBlank()) {
            flash.addFlashAttribute(
                    "error", "The fitted list is corrected with a reason only; say how you know.");
        } else {
            fitted.correct(context.job().vin(), module, has, reason.trim(), who.getName());
            flash.addFlashAttribute("notice", "The fitted list of this vehicle was corrected.");
        }
        return "redirect:/jobs/" + id + "/sweep/roll-call";
    }
}
