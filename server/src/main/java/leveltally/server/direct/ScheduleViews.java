package leveltally.server.direct;

import java.sql.ResultSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import leveltally.core.direct.Schedule;
import leveltally.server.frame.MoneyView;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.WayToPay;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Puts what is paid again and again before those who look: the schedules, and the days that wait to be paid. */
@Component
public class ScheduleViews {
    private final Schedules schedules;
    private final BankAccounts accounts;
    private final JdbcClient jdbc;

    ScheduleViews(Schedules schedules, BankAccounts accounts, JdbcClient jdbc) {
        this.schedules = schedules;
        this.accounts = accounts;
        this.jdbc = jdbc;
    }

    /**
     * One as it is kept.
     *
     * @param nextDay the first day that waits; null where none does within a year
     * @param days those taken or passed over, the latest first
     */
    record ScheduleView(
            long id,
            String name,
            long account,
            long way,
            String paidBy,
            long vendor,
            String vendorName,
            String vendorNumber,
            String reference,
            String said,
            MoneyView amount,
            String rhythm,
            String rhythmWords,
            LocalDate first,
            @Nullable LocalDate until,
            @Nullable LocalDate endedOn,
            String endedWhy,
            @Nullable LocalDate nextDay,
            List<DayView> days,
            String keptBy,
            long version) {}

    /**
     * What became of a day.
     *
     * @param batch the batch that pays it; null where it was passed over
     * @param words where it stands, or why it was passed over
     */
    record DayView(LocalDate dueOn, @Nullable Long batch, String words) {}

    /** A day that waits: what taking it into a batch would type. */
    public record Proposed(
            long schedule,
            String name,
            LocalDate dueOn,
            long account,
            long way,
            String paidBy,
            String vendor,
            String vendorName,
            String said,
            String reference,
            MoneyView amount) {}

    private record Payee(String number, String name) {}

    @Transactional(readOnly = true)
    List<ScheduleView> all(LocalDate today) {
        List<Schedules.Kept> all = schedules.all();
        Map<Long, Payee> payees = payees(all);
        Map<Long, String> ways = ways();
        Map<Long, List<DayView>> days = days();
        Map<Long, String> keepers = keepers();
        return all.stream()
                .map(kept -> {
                    Schedule s = kept.schedule();
                    Payee payee =
                            Objects.requireNonNull(payees.get(kept.vendor().value()));
                    List<DayView> own = days.getOrDefault(kept.id(), List.of());
                    LocalDate next = kept.endedOn() != null
                            ? null
                            : s.daysTo(today.plusYears(1)).stream()
                                    .filter(day -> own.stream()
                                            .noneMatch(one -> one.dueOn().equals(day)))
                                    .findFirst()
                                    .orElse(null);
                    return new ScheduleView(
                            kept.id(),
                            s.name(),
                            kept.account().value(),
                            kept.way().value(),
                            ways.getOrDefault(kept.way().value(), ""),
                            kept.vendor().value(),
                            payee.name(),
                            payee.number(),
                            s.reference(),
                            s.said(),
                            MoneyView.of(s.amount()),
                            s.rhythm().name(),
                            s.rhythm().words(),
                            s.first(),
                            s.until(),
                            kept.endedOn(),
                            kept.endedWhy(),
                            next,
                            own,
                            keepers.getOrDefault(kept.id(), ""),
                            kept.version());
                })
                .toList();
    }

    /** A day that waits. */
    private record Waiting(Schedules.Kept kept, LocalDate day) {}

    private List<Waiting> waitingTo(LocalDate last) {
        List<Schedules.Kept> going =
                schedules.all().stream().filter(kept -> kept.endedOn() == null).toList();
        Map<Schedules.Day, String> taken =
                schedules.taken(going.stream().map(Schedules.Kept::id).toList(), 0);
        return going.stream()
                .flatMap(kept -> kept.schedule().daysTo(last).stream()
                        .filter(day -> !taken.containsKey(new Schedules.Day(kept.id(), day)))
                        .map(day -> new Waiting(kept, day)))
                .toList();
    }

    /** How many days wait up to and with {@code last}. */
    @Transactional(readOnly = true)
    public int waiting(LocalDate last) {
        return waitingTo(last).size();
    }

    /** The days that wait up to and with {@code last}, the earliest first. */
    @Transactional(readOnly = true)
    public List<Proposed> proposed(LocalDate last) {
        List<Waiting> waiting = waitingTo(last);
        Map<Long, Payee> payees = payees(waiting.stream().map(Waiting::kept).toList());
        Map<Long, String> ways = ways();
        List<Proposed> proposed = new ArrayList<>();
        for (Waiting one : waiting) {
            Schedules.Kept kept = one.kept();
            Schedule s = kept.schedule();
            Payee payee = Objects.requireNonNull(payees.get(kept.vendor().value()));
            proposed.add(new Proposed(
                    kept.id(),
                    s.name(),
                    one.day(),
                    kept.account().value(),
                    kept.way().value(),
                    ways.getOrDefault(kept.way().value(), ""),
                    payee.number(),
                    payee.name(),
                    s.said(),
                    s.referenceOn(one.day()),
                    MoneyView.of(s.amount())));
        }
        proposed.sort(Comparator.comparing(Proposed::dueOn).thenComparing(Proposed::name));
        return proposed;
    }

    private Map<Long, Payee> payees(List<Schedules.Kept> all) {
        if (all.isEmpty()) {
            return Map.of();
        }
        Map<Long, Payee> payees = new HashMap<>();
        jdbc.sql("SELECT id, number, name FROM vendor WHERE id IN (:ids)")
                .param("ids", all.stream().map(kept -> kept.vendor().value()).collect(Collectors.toSet()))
                .query((ResultSet r) -> {
                    payees.put(r.getLong("id"), new Payee(r.getString("number"), r.getString("name")));
                });
        return payees;
    }

    private Map<Long, String> ways() {
        Map<Long, String> ways = new HashMap<>();
        for (BankAccount account : accounts.list()) {
            for (WayToPay way : account.ways()) {
                ways.put(way.id().value(), way.name() + ", " + account.name());
            }
        }
        return ways;
    }

    private Map<Long, List<DayView>> days() {
        Map<Long, List<DayView>> days = new HashMap<>();
        jdbc.sql("""
                        SELECT schedule_id, due_on, batch_id AS batch, CONCAT('in “', name, '”') AS words FROM schedule_paid
                        UNION ALL SELECT schedule_id, due_on, NULL, CONCAT('passed over: ', why) FROM schedule_pass
                        ORDER BY due_on DESC
                        """).query((ResultSet r) -> {
            days.computeIfAbsent(r.getLong("schedule_id"), none -> new ArrayList<>())
                    .add(new DayView(
                            r.getObject("due_on", LocalDate.class),
                            r.getObject("batch", Long.class),
                            r.getString("words")));
        });
        return days;
    }

    private Map<Long, String> keepers() {
        Map<Long, String> keepers = new HashMap<>();
        jdbc.sql("SELECT s.id, p.name FROM payment_schedule s JOIN person p ON p.id = s.kept_by")
                .query((ResultSet r) -> {
                    keepers.put(r.getLong("id"), r.getString("name"));
                });
        return keepers;
    }
}
