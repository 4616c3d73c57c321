package leveltally.server.direct;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import leveltally.core.direct.Rhythm;
import leveltally.core.direct.Schedule;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What is paid again and again. */
@RestController
@RequestMapping("/api/schedules")
@Needs(Deed.READ)
class ScheduleController {
    private static final int USUAL_DAYS = 7;

    private final Schedules schedules;
    private final ScheduleViews views;
    private final BankAccounts accounts;

    ScheduleController(Schedules schedules, ScheduleViews views, BankAccounts accounts) {
        this.schedules = schedules;
        this.views = views;
        this.accounts = accounts;
    }

    /** A rhythm to choose. */
    record RhythmChoice(String value, String words) {}

    record SchedulesView(List<ScheduleViews.ScheduleView> schedules, List<RhythmChoice> rhythms) {}

    /** {@code vendor} stands once it is begun; {@code version} is the one that was seen, and not asked of a new one. */
    record ScheduleWanted(
            @NotNull @Size(max = 120) String name,
            long account,
            long way,
            long vendor,
            @NotNull @Size(max = 80) String reference,
            @NotNull @Size(max = 300) String said,
            @NotNull @Size(max = 40) String amount,
            @NotNull Rhythm rhythm,
            @NotNull LocalDate first,
            @Nullable LocalDate until,
            long version) {}

    record DaysView(LocalDate until, List<ScheduleViews.Proposed> days) {}

    record ScheduleEnd(@NotNull @Size(max = 200) String reason, long version) {}

    record PassedOver(
            @NotNull LocalDate dueOn,
            @NotNull @Size(max = 200) String reason) {}

    record ProposedAgain(@NotNull LocalDate dueOn) {}

    @GetMapping
    SchedulesView all(Actor by) {
        by.mayDo(Deed.READ);
        return new SchedulesView(
                views.all(by.today()),
                Arrays.stream(Rhythm.values())
                        .map(one -> new RhythmChoice(one.name(), one.words()))
                        .toList());
    }

    /** The days that wait to be paid up to a day; where none is named, to that of the week ahead. */
    @GetMapping("/days")
    DaysView days(Actor by, @RequestParam(required = false) @Nullable LocalDate until) {
        by.mayDo(Deed.READ);
        LocalDate furthest = by.today().plusYears(1);
        LocalDate last = until == null ? by.today().plusDays(USUAL_DAYS) : until.isAfter(furthest) ? furthest : until;
        return new DaysView(last, views.proposed(last));
    }

    @PostMapping
    @Needs(Deed.KEEP_SCHEDULE)
    long begin(Actor by, @Valid @RequestBody ScheduleWanted wanted) {
        return schedules.begin(by, read(wanted));
    }

    @PostMapping("/{id}")
    @Needs(Deed.KEEP_SCHEDULE)
    void change(Actor by, @PathVariable long id, @Valid @RequestBody ScheduleWanted wanted) {
        schedules.change(by, id, wanted.version(), read(wanted));
    }

    private Schedules.Wanted read(ScheduleWanted wanted) {
        BankAccountId account = new BankAccountId(wanted.account());
        return new Schedules.Wanted(
                account,
                new WayId(wanted.way()),
                new VendorId(wanted.vendor()),
                new Schedule(
                        wanted.name(),
                        wanted.reference(),
                        wanted.said(),
                        Money.typed(wanted.amount(), accounts.get(account).currency(), "amount"),
                        wanted.rhythm(),
                        wanted.first(),
                        wanted.until()));
    }

    @PostMapping("/{id}/end")
    @Needs(Deed.KEEP_SCHEDULE)
    void end(Actor by, @PathVariable long id, @Valid @RequestBody ScheduleEnd wanted) {
        schedules.end(by, id, wanted.version(), wanted.reason());
    }

    @PostMapping("/{id}/pass")
    @Needs(Deed.KEEP_SCHEDULE)
    void passOver(Actor by, @PathVariable long id, @Valid @RequestBody PassedOver wanted) {
        schedules.passOver(by, id, wanted.dueOn(), wanted.reason());
    }

    @PostMapping("/{id}/propose")
    @Needs(Deed.KEEP_SCHEDULE)
    void proposeAgain(Actor by, @PathVariable long id, @Valid @RequestBody ProposedAgain wanted) {
        schedules.proposeAgain(by, id, wanted.dueOn());
    }
}
