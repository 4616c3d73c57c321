package leveltally.server.vendors;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import leveltally.core.DateStyle;
import leveltally.core.money.Currencies;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.Advice;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.Delivery;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.Reportable;
import leveltally.core.vendors.TaxNumber;
import leveltally.core.vendors.VendorFacts;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Csv;
import leveltally.server.frame.Needs;
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

/** Vendors to choose from, and everything about one. */
@RestController
@RequestMapping("/api/vendors")
@Needs(Deed.READ)
class VendorController {
    private final Vendors vendors;
    private final VendorRecords records;
    private final VendorMerging merging;
    private final VendorList list;
    private final VendorPage page;
    private final VendorAccounts accounts;

    VendorController(
            Vendors vendors,
            VendorRecords records,
            VendorMerging merging,
            VendorList list,
            VendorPage page,
            VendorAccounts accounts) {
        this.vendors = vendors;
        this.records = records;
        this.merging = merging;
        this.list = list;
        this.page = page;
        this.accounts = accounts;
    }

    record MergeWanted(long kept, @NotNull @Size(max = 200) String why) {}

    /** What is kept of a vendor and changed by one person; {@code taxNumber} null leaves it as it is. */
    record VendorWanted(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 60) String group,
            int priority,
            @NotNull PaymentMethod method,
            @Nullable Set<@NotNull PaymentMethod> alsoBy,
            @NotNull @Size(max = 60) String terms,
            @NotNull @Valid PaperworkWanted paperwork,
            @NotNull Reportable reportable,
            @Nullable @Size(max = 60) String taxNumber) {
        VendorFacts facts() {
            return new VendorFacts(
                    name,
                    group,
                    priority,
                    method,
                    Terms.typed(terms),
                    paperwork.paperwork(),
                    reportable,
                    alsoBy == null ? Set.of() : alsoBy);
        }
    }

    record NewVendor(
            @NotNull @Size(max = 40) String number,
            @NotNull @Valid VendorWanted facts,
            @NotNull @Size(max = 10) String currency,
            boolean oneTime,
            @NotNull @Size(max = 200) String payee,
            @NotNull @Size(max = 10) List<@NotNull @Size(max = 200) String> address,
            @NotNull @Size(max = 20) String postalCode,
            @NotNull @Size(max = 40) String routing,
            @NotNull @Size(max = 60) String account,
            @Nullable Boolean savings,
            @Nullable @Size(max = 20) String bic) {}

    record VendorChanged(@NotNull @Valid VendorWanted facts, long version) {}

    /** What is kept, to be changed; {@code taxNumber} is its end. */
    record VendorKept(
            String name,
            String group,
            int priority,
            String method,
            List<String> alsoBy,
            String alsoByWords,
            String terms,
            PaperworkView paperwork,
            String reportable,
            String reportableWords,
            String taxNumber,
            long version,
            boolean mayChange) {}

    record VendorChoices(
            String nextNumber,
            List<String> groups,
            List<VendorChoice> methods,
            List<VendorChoice> reportable,
            List<VendorChoice> advices,
            List<VendorChoice> deliveries,
            List<VendorChoice> dates) {}

    record VendorChoice(String value, String words) {}

    record VendorReason(@NotNull @Size(max = 200) String reason) {}

    /** Vendors by name or number, for a choice. */
    @GetMapping
    List<Vendors.Choice> named(Actor by, @RequestParam(defaultValue = "") String text) {
        by.mayDo(Deed.READ);
        return vendors.named(text);
    }

    @GetMapping("/groups")
    List<String> groups(Actor by) {
        by.mayDo(Deed.READ);
        return vendors.groups();
    }

    /** Vendors with what is open, a page from a place on. */
    @GetMapping("/list")
    List<ListedVendor> list(
            Actor by,
            @ParameterObject @ModelAttribute VendorList.Asked asked,
            @RequestParam(defaultValue = "0") int from) {
        by.mayDo(Deed.READ);
        return list.page(asked, Math.max(0, from));
    }

    /** The same vendors as CSV, all of them. */
    @GetMapping(value = "/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(Actor by, @ParameterObject @ModelAttribute VendorList.Asked asked) {
        by.mayDo(Deed.READ);
        return Csv.answer("vendors.csv", VendorList.COLUMNS, list.rows(asked));
    }

    @GetMapping("/{id}")
    VendorView one(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return page.of(new VendorId(id));
    }

    @GetMapping("/{id}/account")
    List<AccountRow> account(
            Actor by, @PathVariable long id, @RequestParam(defaultValue = "ALL") VendorAccounts.Show show) {
        by.mayDo(Deed.READ);
        return accounts.of(new VendorId(id), show);
    }

    @GetMapping(value = "/{id}/account/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> accountCsv(
            Actor by, @PathVariable long id, @RequestParam(defaultValue = "ALL") VendorAccounts.Show show) {
        by.mayDo(Deed.READ);
        return Csv.answer(
                "vendor-" + id + ".csv",
                List.of("date", "entry", "what", "reference", "amount", "currency", "open", "balance", "state"),
                accounts.of(new VendorId(id), show).stream()
                        .map(row -> List.of(
                                row.date().toString(),
                                String.valueOf(row.entry()),
                                row.words(),
                                row.reference(),
                                row.amount().replace(",", ""),
                                row.currency(),
                                row.open() == null ? "" : row.open().replace(",", ""),
                                row.balance() == null ? "" : row.balance().replace(",", ""),
                                row.state())));
    }

    /** What a new vendor is made of. */
    @GetMapping("/choices")
    VendorChoices choices(Actor by) {
        by.mayDo(Deed.READ);
        return new VendorChoices(
                records.nextNumber(),
                vendors.groups(),
                choices(PaymentMethod.values(), PaymentMethod::words),
                choices(Reportable.values(), Reportable::words),
                choices(Advice.values(), Advice::words),
                choices(Delivery.values(), Delivery::words),
                choices(DateStyle.CHOICES.toArray(DateStyle[]::new), DateStyle::words));
    }

    private static <E extends Enum<E>> List<VendorChoice> choices(E[] all, Function<E, String> words) {
        return Arrays.stream(all)
                .map(one -> new VendorChoice(one.name(), words.apply(one)))
                .toList();
    }

    @PostMapping
    @Needs(Deed.ENTER_VENDOR)
    long enter(Actor by, @Valid @RequestBody NewVendor wanted) {
        VendorFacts facts = wanted.facts().facts();
        String tax = wanted.facts().taxNumber();
        return records.enter(
                        by,
                        new VendorRecords.New(
                                wanted.number(),
                                facts,
                                Currencies.typed(wanted.currency(), "currency"),
                                wanted.oneTime(),
                                tax == null || tax.isBlank() ? null : new TaxNumber(tax),
                                new RemitTo(
                                        wanted.payee().isBlank()
                                                ? facts.name()
                                                : wanted.payee().strip(),
                                        wanted.address().stream()
                                                .map(String::strip)
                                                .filter(line -> !line.isEmpty())
                                                .toList()),
                                wanted.postalCode(),
                                wanted.account().isBlank()
                                        ? null
                                        : BankDetails.typed(
                                                wanted.routing(),
                                                wanted.account(),
                                                Boolean.TRUE.equals(wanted.savings()),
                                                wanted.bic() == null ? "" : wanted.bic())))
                .value();
    }

    @GetMapping("/{id}/kept")
    VendorKept kept(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        VendorRecords.Kept kept = records.kept(new VendorId(id));
        VendorFacts facts = kept.facts();
        return new VendorKept(
                facts.name(),
                facts.group(),
                facts.priority(),
                facts.method().name(),
                facts.alsoBy().stream().sorted().map(Enum::name).toList(),
                facts.alsoBy().stream().sorted().map(PaymentMethod::words).collect(Collectors.joining(" or ")),
                facts.terms().inWords(),
                PaperworkView.of(facts.paperwork()),
                facts.reportable().name(),
                facts.reportable().words(),
                kept.taxNumber(),
                kept.version(),
                Deed.CHANGE_VENDOR.allowedTo(by.roles()));
    }

    @PostMapping("/{id}")
    @Needs(Deed.CHANGE_VENDOR)
    void change(Actor by, @PathVariable long id, @Valid @RequestBody VendorChanged wanted) {
        records.change(
                by, new VendorId(id), wanted.facts().facts(), wanted.facts().taxNumber(), wanted.version());
    }

    /** This vendor and the kept one always were one. */
    @PostMapping("/{id}/merge")
    @Needs(Deed.MERGE_VENDORS)
    void merge(Actor by, @PathVariable long id, @Valid @RequestBody MergeWanted wanted) {
        merging.merge(by, new VendorId(id), new VendorId(wanted.kept()), wanted.why());
    }

    @PostMapping("/{id}/hold")
    @Needs(Deed.HOLD)
    VendorView hold(Actor by, @PathVariable long id, @Valid @RequestBody VendorReason wanted) {
        vendors.hold(by, new VendorId(id), wanted.reason());
        return page.of(new VendorId(id));
    }

    @PostMapping("/{id}/release")
    @Needs(Deed.RELEASE_VENDOR)
    VendorView release(Actor by, @PathVariable long id, @Valid @RequestBody VendorReason wanted) {
        vendors.release(by, new VendorId(id), wanted.reason());
        return page.of(new VendorId(id));
    }
}
