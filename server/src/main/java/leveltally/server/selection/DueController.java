package leveltally.server.selection;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.CashAvailable;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Decision;
import leveltally.core.selection.Horizon;
import leveltally.core.selection.LeftOutReason;
import leveltally.core.selection.RelativeDay;
import leveltally.core.selection.Selection;
import leveltally.core.selection.Span;
import leveltally.server.frame.Csv;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What is due, taken and left out. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class DueController {
    static final int PAGE = 100;
    private static final int MOST_CREDITS_SHOWN = 200;

    private final Whereabouts whereabouts;
    private final HorizonRows horizon;
    private final Cash cash;
    private final BankAccounts accounts;
    private final SavedCriteria saved;
    private final DueLists lists;

    DueController(
            Whereabouts whereabouts,
            HorizonRows horizon,
            Cash cash,
            BankAccounts accounts,
            SavedCriteria saved,
            DueLists lists) {
        this.lists = lists;
        this.whereabouts = whereabouts;
        this.horizon = horizon;
        this.cash = cash;
        this.accounts = accounts;
        this.saved = saved;
    }

    @Schema(
            requiredProperties = {
                "invoice",
                "vendor",
                "vendorName",
                "reference",
                "dueDate",
                "due",
                "late",
                "taken",
                "movable",
                "note",
                "noteKind",
                "wayOut",
                "open",
                "currency"
            })
    record DueRowView(
            long invoice,
            long vendor,
            String vendorName,
            String reference,
            LocalDate dueDate,
            String due,
            boolean late,
            boolean taken,
            boolean movable,
            String note,
            String noteKind,
            String wayOut,
            String open,
            @Nullable String toPay,
            String currency) {}

    /** {@code first} is the place of its first row; {@code claim} is true where the heading is one claim. */
    @Schema(requiredProperties = {"key", "title", "detail", "first", "count", "claim", "open", "toPay"})
    record GroupView(
            String key,
            String title,
            String detail,
            int first,
            int count,
            boolean claim,
            List<MoneyView> open,
            String toPay) {}

    /** {@code first} is the entry number of the first row of the list it keeps out; 0 when none is listed. */
    @Schema(requiredProperties = {"reason", "words", "wayOut", "count", "open", "first"})
    record LeftOutView(String reason, String words, String wayOut, int count, List<MoneyView> open, long first) {}

    /** A credit the batch does not use, and why. */
    @Schema(requiredProperties = {"credit", "vendor", "reference", "open", "why"})
    record CreditOutView(long credit, long vendor, String reference, MoneyView open, String why) {}

    @Schema(requiredProperties = {"way", "words", "claims", "spends", "saves", "late", "lateCash", "error", "chosen"})
    record CashWayView(
            String way,
            String words,
            int claims,
            String spends,
            String saves,
            int late,
            String lateCash,
            @Nullable String error,
            boolean chosen) {}

    @Schema(requiredProperties = {"vendor", "vendorName", "amount", "invoices", "credits"})
    record OffsetProposalView(long vendor, String vendorName, String amount, List<Long> invoices, List<Long> credits) {}

    /**
     * @param order the entry numbers of all rows in their order; {@code rows} are the first page of them
     * @param lineAt before which group the cash line is drawn
     * @param left what remains of the limit
     */
    @Schema(
            requiredProperties = {
                "currency",
                "checkDate",
                "ledgerDate",
                "dueBy",
                "count",
                "claims",
                "toPay",
                "saved",
                "credited",
                "listed",
                "open",
                "leftOut",
                "leftOutCount",
                "creditsOut",
                "groups",
                "order",
                "rows",
                "ways",
                "offsets"
            })
    record DueView(
            String currency,
            LocalDate checkDate,
            LocalDate ledgerDate,
            LocalDate dueBy,
            @Nullable LocalDate nextRun,
            int count,
            int claims,
            String toPay,
            String saved,
            String credited,
            @Nullable String limit,
            @Nullable String left,
            @Nullable Boolean overLimit,
            int listed,
            List<MoneyView> open,
            List<LeftOutView> leftOut,
            int leftOutCount,
            List<CreditOutView> creditsOut,
            List<GroupView> groups,
            @Nullable Integer lineAt,
            long[] order,
            List<DueRowView> rows,
            List<CashWayView> ways,
            List<OffsetProposalView> offsets) {}

    @Schema(requiredProperties = {"count", "open", "toPay"})
    record TotalView(int count, List<MoneyView> open, String toPay) {}

    @Schema(
            requiredProperties = {
                "invoice",
                "vendor",
                "vendorName",
                "reference",
                "words",
                "sentence",
                "wayOut",
                "canTake"
            })
    record WhereView(
            long invoice,
            long vendor,
            String vendorName,
            String reference,
            String words,
            String sentence,
            String wayOut,
            boolean canTake) {}

    @Schema(requiredProperties = {"words", "detail", "amount"})
    record CashLineView(String words, String detail, String amount) {}

    /** A movement at the bank that the ledger does not have yet. */
    @Schema(requiredProperties = {"id", "date", "text", "amount"})
    record MovementView(long id, LocalDate date, String text, String amount) {}

    @Schema(requiredProperties = {"lines", "available", "currency", "floor", "movements"})
    record CashView(
            List<CashLineView> lines, String available, String currency, String floor, List<MovementView> movements) {}

    /** {@code share} is the height of its bar in percent of the highest. */
    @Schema(requiredProperties = {"date", "due", "count", "share", "dying", "discounts", "dyingShare"})
    record HorizonDayView(
            LocalDate date, String due, int count, int share, String dying, int discounts, int dyingShare) {}

    /** {@code cash} is what is left above the floor; {@code level} its place in percent between least and most. */
    @Schema(requiredProperties = {"date", "invoices", "pays", "saves", "short"})
    record PlannedRunView(
            LocalDate date,
            int invoices,
            String pays,
            String saves,
            @Nullable String cash,
            @Nullable Integer level,

            @com.fasterxml.jackson.annotation.JsonProperty("short")
            boolean isShort) {}

    @Schema(requiredProperties = {"currency", "late", "lateCount", "days", "runs"})
    record HorizonView(
            String currency,
            String late,
            int lateCount,
            @Nullable Integer zero,
            List<HorizonDayView> days,
            List<PlannedRunView> runs) {}

    @Schema(requiredProperties = {"id", "name", "owner", "mine", "shared", "question"})
    record SavedView(
            long id,
            String name,
            String owner,
            boolean mine,
            boolean shared,
            DueQuestion question,
            @Nullable Long lastBatch,
            @Nullable Instant lastRunAt,
            @Nullable String lastOutcome) {}

    record SaveCriteria(
            @NotNull @Size(min = 1, max = 60) String name,
            boolean shared,
            @NotNull DueQuestion question) {}

    @Schema(requiredProperties = {"date", "relative"})
    record SaidDay(LocalDate date, boolean relative) {}

    @GetMapping("/due")
    DueView list(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @RequestParam(defaultValue = "DAY") Listing.By listedBy,
            @RequestParam(required = false) @Nullable String days) {
        by.mayDo(Deed.READ);
        Listing list = lists.now(question, shape(listedBy, days), by.today());
        Selection selection = list.selection();
        Criteria criteria = selection.criteria();
        Money limit = criteria.paying().limit();
        Money left = selection.left().orElse(null);
        return new DueView(
                criteria.currency().getCurrencyCode(),
                criteria.checkDate(),
                criteria.ledgerDate(),
                criteria.dueBy(),
                criteria.nextRun(),
                selection.taken().size(),
                selection.claims().size(),
                selection.toPay().toString(),
                selection.saved().toString(),
                selection.credited().toString(),
                limit == null ? null : limit.toString(),
                left == null ? null : left.toString(),
                left == null ? null : left.isNegative(),
                list.rows().size(),
                money(Listing.open(list.rows())),
                selection.leftOut().stream()
                        .map(out -> new LeftOutView(
                                out.reason().name(),
                                out.reason().words(),
                                out.reason().wayOut(),
                                out.count(),
                                money(out.open()),
                                list.first(out.reason())))
                        .toList(),
                selection.leftOut().stream()
                        .mapToInt(Selection.LeftOutTotal::count)
                        .sum(),
                selection.creditsOut().stream()
                        .limit(MOST_CREDITS_SHOWN)
                        .map(out -> new CreditOutView(
                                out.credit().credit().id().value(),
                                out.credit().vendor().value(),
                                out.credit().credit().reference(),
                                MoneyView.of(out.credit().credit().open()),
                                out.why()))
                        .toList(),
                list.groups().stream().map(group -> view(group, list.none())).toList(),
                list.lineAt() < 0 ? null : list.lineAt(),
                list.rows().stream()
                        .mapToLong(row -> row.candidate().invoice().id().value())
                        .toArray(),
                rows(list, 0, by.today()),
                selection.ways().stream()
                        .map(way -> view(way, criteria.paying().way() == way.way()))
                        .toList(),
                selection.offsets().stream().map(DueController::view).toList());
    }

    /** A page of the list: rows {@code from}, {@code from} + 1, and so on. */
    @GetMapping("/due/rows")
    List<DueRowView> rows(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @RequestParam(defaultValue = "DAY") Listing.By listedBy,
            @RequestParam(required = false) @Nullable String days,
            @RequestParam int from) {
        by.mayDo(Deed.READ);
        return rows(lists.lately(question, shape(listedBy, days), by.today()), Math.max(0, from), by.today());
    }

    /** What the selected rows come to; the browser adds nothing up. {@code all} for the whole list. */
    @GetMapping("/due/total")
    TotalView total(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @RequestParam(defaultValue = "DAY") Listing.By listedBy,
            @RequestParam(required = false) @Nullable String days,
            @RequestParam String selected) {
        by.mayDo(Deed.READ);
        Listing list = lists.lately(question, shape(listedBy, days), by.today());
        List<Selection.Row> rows = list.rows();
        if (!selected.equals("all")) {
            Set<InvoiceId> wanted = EntryRanges.read(selected);
            rows = rows.stream()
                    .filter(row -> wanted.contains(row.candidate().invoice().id()))
                    .toList();
        }
        return new TotalView(
                rows.size(),
                money(Listing.open(rows)),
                Listing.toPay(rows, list.none()).toString());
    }

    /** The list as CSV, row by row. */
    @GetMapping(value = "/due/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @RequestParam(defaultValue = "DAY") Listing.By listedBy,
            @RequestParam(required = false) @Nullable String days) {
        by.mayDo(Deed.READ);
        Listing list = lists.now(question, shape(listedBy, days), by.today());
        return Csv.answer(
                "due.csv",
                List.of(
                        "entry",
                        "vendor",
                        "reference",
                        "invoice_date",
                        "due_date",
                        "currency",
                        "open",
                        "taken",
                        "to_pay",
                        "discount",
                        "credit",
                        "note"),
                list.rows().stream().map(DueController::cells));
    }

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

    /** The cash there is for the check date, line by line. */
    @GetMapping("/due/cash")
    CashView cash(Actor by, @ParameterObject @ModelAttribute DueQuestion question) {
        by.mayDo(Deed.READ);
        BankAccount account = accounts.get(question.bankAccount());
        CashAvailable available = cash.available(account, question.checkDay(account, by.today()), 0);
        return new CashView(
                available.lines().stream()
                        .map(line -> new CashLineView(
                                line.words(), line.detail(), line.amount().toString()))
                        .toList(),
                available.available().toString(),
                account.currency().getCurrencyCode(),
                account.floor().toString(),
                accounts.openMovements(account).stream()
                        .map(m -> new MovementView(
                                m.id(), m.date(), m.text(), m.amount().toString()))
                        .toList());
    }

    @GetMapping("/due/horizon")
    HorizonView horizon(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @RequestParam(defaultValue = "42") int days) {
        by.mayDo(Deed.READ);
        Horizon of = horizon.of(question, Math.max(7, Math.min(120, days)), by.today());
        long most =
                of.days().stream().mapToLong(d -> d.due().open().minor()).max().orElse(0);
        long dying = of.days().stream().mapToLong(d -> d.dying().minor()).max().orElse(0);
        long high = of.runs().stream()
                .mapToLong(r -> r.cash() == null ? 0 : r.cash().minor())
                .max()
                .orElse(0);
        long low = of.runs().stream()
                .mapToLong(r -> r.cash() == null ? 0 : r.cash().minor())
                .min()
                .orElse(0);
        high = Math.max(0, high);
        low = Math.min(0, low);
        long bottom = low;
        long range = high - low;
        return new HorizonView(
                of.late().open().currency().getCurrencyCode(),
                of.late().open().toString(),
                of.late().count(),
                range == 0 ? null : percent(-bottom, range),
                of.days().stream()
                        .map(d -> new HorizonDayView(
                                d.date(),
                                d.due().open().toString(),
                                d.due().count(),
                                percent(d.due().open().minor(), most),
                                d.dying().toString(),
                                d.discounts(),
                                percent(d.dying().minor(), dying)))
                        .toList(),
                of.runs().stream()
                        .map(r -> new PlannedRunView(
                                r.date(),
                                r.invoices(),
                                r.pays().toString(),
                                r.saves().toString(),
                                r.cash() == null ? null : r.cash().toString(),
                                r.cash() == null || range == 0
                                        ? null
                                        : percent(r.cash().minor() - bottom, range),
                                r.isShort()))
                        .toList());
    }

    /** What a day in words means today: {@code next Friday}. */
    @GetMapping("/due/day")
    SaidDay day(Actor by, @RequestParam String text) {
        by.mayDo(Deed.READ);
        return new SaidDay(RelativeDay.read(text, by.today()), RelativeDay.isRelative(text));
    }

    @GetMapping("/criteria")
    List<SavedView> savedCriteria(Actor by) {
        return saved.list(by).stream()
                .map(s -> new SavedView(
                        s.id(),
                        s.name(),
                        s.owner(),
                        s.mine(),
                        s.shared(),
                        s.question(),
                        s.lastBatch(),
                        s.lastRunAt(),
                        s.lastOutcome()))
                .toList();
    }

    @PostMapping("/criteria")
    @Needs(Deed.EDIT_BATCH)
    List<SavedView> save(Actor by, @Valid @RequestBody SaveCriteria wanted) {
        saved.save(by, wanted.name(), wanted.shared(), wanted.question());
        return savedCriteria(by);
    }

    @PostMapping("/criteria/{id}/remove")
    @Needs(Deed.EDIT_BATCH)
    List<SavedView> remove(Actor by, @PathVariable long id) {
        saved.remove(by, id);
        return savedCriteria(by);
    }

    private static DueLists.Shape shape(Listing.By by, @Nullable String days) {
        return new DueLists.Shape(by, days(days));
    }

    /** The days picked on the horizon, {@code 2026-11-20~2026-11-24}; all when none are. */
    private static Span<LocalDate> days(@Nullable String text) {
        if (text == null || text.isBlank()) {
            return Span.all();
        }
        String[] ends = text.split("~");
        LocalDate from = RelativeDay.read(ends[0], LocalDate.EPOCH);
        return Span.of(from, ends.length == 1 ? from : RelativeDay.read(ends[1], LocalDate.EPOCH), "days", "days");
    }

    private static int percent(long part, long whole) {
        return whole == 0 ? 0 : (int) (100 * part / whole);
    }

    private static List<DueRowView> rows(Listing list, int from, LocalDate today) {
        int until = Math.min(from + PAGE, list.rows().size());
        return from >= until
                ? List.of()
                : list.rows().subList(from, until).stream()
                        .map(row -> view(row, today))
                        .toList();
    }

    private static GroupView view(Listing.Group group, Money none) {
        return new GroupView(
                group.key(),
                group.title(),
                group.detail(),
                group.first(),
                group.rows().size(),
                group.claim(),
                money(Listing.open(group.rows())),
                group.toPay(none).toString());
    }

    private static CashWayView view(Selection.WayOutcome way, boolean chosen) {
        return new CashWayView(
                way.way().name(),
                way.way().words(),
                way.claims(),
                way.spends().toString(),
                way.saves().toString(),
                way.late(),
                way.lateCash().toString(),
                way.error().isZero() ? null : way.error().toString(),
                chosen);
    }

    private static OffsetProposalView view(Selection.OffsetProposal offset) {
        return new OffsetProposalView(
                offset.payee().vendor().value(),
                offset.payee().name(),
                offset.settling().credit().toString(),
                offset.settling().lines().stream()
                        .map(line -> line.invoice().id().value())
                        .toList(),
                offset.settling().uses().stream()
                        .map(use -> use.credit().id().value())
                        .toList());
    }

    private static DueRowView view(Selection.Row row, LocalDate today) {
        var invoice = row.candidate().invoice();
        boolean taken = row.isTaken();
        LeftOutReason reason = row.decision() instanceof Decision.LeftOut out ? out.reason() : null;
        Listing.Note note = Listing.Note.of(row, invoice.discount().until());
        return new DueRowView(
                invoice.id().value(),
                row.candidate().payee().vendor().value(),
                row.candidate().payee().name(),
                invoice.reference(),
                invoice.dueDate(),
                Listing.inDays(invoice.dueDate(), today),
                invoice.dueDate().isBefore(today),
                taken,
                reason == null || reason.movable(),
                note.words(),
                note.kind(),
                reason == null ? "" : reason.wayOut(),
                invoice.open().toString(),
                row.decision() instanceof Decision.Taken t ? t.payment().cash().toString() : null,
                invoice.open().currency().getCurrencyCode());
    }

    private static List<String> cells(Selection.Row row) {
        var invoice = row.candidate().invoice();
        Decision.Taken taken = row.decision() instanceof Decision.Taken t ? t : null;
        return List.of(
                String.valueOf(invoice.id().value()),
                row.candidate().payee().name(),
                invoice.reference(),
                invoice.invoiceDate().toString(),
                invoice.dueDate().toString(),
                invoice.open().currency().getCurrencyCode(),
                invoice.open().plain(),
                taken == null ? "no" : "yes",
                taken == null ? "" : taken.payment().cash().plain(),
                taken == null ? "" : taken.payment().discount().plain(),
                taken == null ? "" : taken.credit().plain(),
                Listing.Note.of(row, invoice.discount().until()).words());
    }

    private static List<MoneyView> money(List<Money> amounts) {
        return amounts.stream().map(MoneyView::of).toList();
    }
}
