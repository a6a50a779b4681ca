package brightlantern.app.watch;

import brightlantern.app.job.LeadCodes;
import brightlantern.app.page.JobPages;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.watch.ProposedLists;
import jakarta.servlet.http.HttpSession;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Watch lists that are kept or proposed, taken in the place of what was chosen. */
@Controller
@RequestMapping("/jobs/{id}/watch")
class WatchListController {
    private final JobPages pages;
    private final LeadCodes leads;
    private final WatchLists lists;

    WatchListController(JobPages pages, LeadCodes leads, WatchLists lists) {
        this.pages = pages;
        this.leads = leads;
        this.lists = lists;
    }

    /** Takes a kept or a proposed list, in the place of what was WatchController.chosen. */
    @PostMapping("/lists/use")
    String useList(
            @PathVariable("id") long id,
            @RequestParam("list") String list,
            @RequestParam(name = "view", defaultValue = "lanes") String view,
            HttpSession session,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        Optional<List<String>> values =
                list.matches("\\d+")
                        ? lists.one(d.id(), who.getName(), Long.parseLong(list))
                                .map(WatchLists.WatchList::values)
                        : ProposedLists.of(d, leads.of(context.job(), d), context.job().symptoms())
                                .stream()
                                .filter(p -> p.id().equals(list))
                                .map(ProposedLists.Proposed::values)
                                .findFirst();
        if (values.isEmpty()) {
            flash.addFlashAttribute(
                    "error", "There is no such watch list any more; choose another.");
            return WatchController.BACK + id + "/watch?view=" + view;
        }
        session.setAttribute("watch-" + id, new ArrayList<>(values.get()));
        return WatchController.BACK + id + "/watch?view=" + view;
    }

    @PostMapping("/lists/keep")
    String keepList(
            @PathVariable("id") long id,
            @RequestParam("name") String name,
            @RequestParam(name = "shared", defaultValue = "false") boolean shared,
            HttpSession session,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        try {
            lists.keep(
                    context.description().id(),
                    who.getName(),
                    name,
                    shared,
                    List.copyOf(WatchValues.chosen(context, session)));
            flash.addFlashAttribute("notice", "Watch list '" + name.trim() + "' was kept.");
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
        }
        return WatchController.BACK + id + "/watch";
    }

    @PostMapping("/lists/remove")
    String removeList(@PathVariable("id") long id, @RequestParam("list") long list, Principal who) {
        lists.remove(pages.context(id).description().id(), who.getName(), list);
        return WatchController.BACK + id + "/watch";
    }
}
