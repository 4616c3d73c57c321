package leveltally.server.selection;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Horizon;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The coming weeks. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class HorizonController {
    private final HorizonRows horizon;

    HorizonController(HorizonRows horizon) {
        this.horizon = horizon;
    }

    /** {@code share} is the height of its bar in percent of the highest. */
    record HorizonDayView(
            LocalDate date, String due, int count, int share, String dying, int discounts, int dyingShare) {}

    /** {@code cash} is what is left above the floor; {@code level} its place in percent between least and most. */
    record PlannedRunView(
            LocalDate date,
            int invoices,
            String pays,
            String saves,
            @Nullable String cash,
            @Nullable Integer level,

            @com.fasterxml.jackson.annotation.JsonProperty("short")
            boolean isShort) {}

    record HorizonView(
            String currency,
            String late,
            int lateCount,
            @Nullable Integer zero,
            List<HorizonDayView> days,
            List<PlannedRunView> runs) {}

    @GetMapping("/due/horizon")
    HorizonView horizon(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @RequestParam(defaultValue = "42") int days) {
        by.mayDo(Deed.READ);
        Horizon of = horizon.of(question, Math.max(7, Math.min(120, days)), by.today());
        Horizon.Scale scale = of.scale();
        return new HorizonView(
                of.late().open().currency().getCurrencyCode(),
                of.late().open().toString(),
                of.late().count(),
                scale.zero(),
                of.days().stream()
                        .map(d -> new HorizonDayView(
                                d.date(),
                                d.due().open().toString(),
                                d.due().count(),
                                scale.ofDue(d),
                                d.dying().toString(),
                                d.discounts(),
                                scale.ofDying(d)))
                        .toList(),
                of.runs().stream()
                        .map(r -> new PlannedRunView(
                                r.date(),
                                r.invoices(),
                                r.pays().toString(),
                                r.saves().toString(),
                                r.cash() == null ? null : r.cash().toString(),
                                scale.level(r),
                                r.isShort()))
                        .toList());
    }
}
