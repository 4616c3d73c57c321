package leveltally.server.selection;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.RelativeDay;
import leveltally.server.frame.Needs;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Where any invoice is, and what a day in words means. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class WhereController {
    private final Whereabouts whereabouts;

    WhereController(Whereabouts whereabouts) {
        this.whereabouts = whereabouts;
    }

    record WhereView(
            long invoice,
            long vendor,
            String vendorName,
            String reference,
            String words,
            String sentence,
            String wayOut,
            boolean canTake) {}

    record SaidDay(LocalDate date, boolean relative) {}

    /** Where any invoice is, by entry number or reference; empty when nothing holds the text. */
    @GetMapping("/due/where")
    List<WhereView> where(Actor by, @ParameterObject @ModelAttribute DueQuestion question, @RequestParam String text) {
        by.mayDo(Deed.READ);
        return whereabouts.of(question, text, by.today()).stream()
                .map(a -> new WhereView(
                        a.invoice(),
                        a.vendor(),
                        a.vendorName(),
                        a.reference(),
                        a.state().words(),
                        a.rest(),
                        a.wayOut(),
                        a.canTake()))
                .toList();
    }

    /** What a day in words means today: {@code next Friday}. */
    @GetMapping("/due/day")
    SaidDay day(Actor by, @RequestParam String text) {
        by.mayDo(Deed.READ);
        return new SaidDay(RelativeDay.read(text, by.today()), RelativeDay.isRelative(text));
    }
}
