package leveltally.server.vendors;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Csv;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
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
    private final VendorPages pages;

    VendorController(Vendors vendors, VendorPages pages) {
        this.vendors = vendors;
        this.pages = pages;
    }

    record ListedVendor(
            long id,
            String number,
            String name,
            String group,
            int priority,
            String method,
            String held,
            int count,
            MoneyView open) {}

    /** {@code bank} is the masked end of the bank details, empty where there are none. */
    record AddressView(long id, String payee, List<String> lines, String postalCode, String bank, boolean inForce) {}

    record PaidYear(int year, int count, MoneyView amount) {}

    record OffsetView(long id, String reference, LocalDate date, MoneyView amount, boolean undone) {}

    record VendorView(
            long id,
            String number,
            String name,
            String group,
            int priority,
            String method,
            String currency,
            String terms,
            String held,
            boolean oneTime,
            List<AddressView> addresses,
            List<MoneyView> open,
            List<MoneyView> credits,
            List<MoneyView> reserved,
            List<PaidYear> paid,
            List<OffsetView> offsets) {}

    /**
     * One movement of the account, or one invoice, credit or payment.
     *
     * @param balance what is owed after it; only in the account in time order
     * @param settled nothing of it is open any more
     * @param held it is held by itself
     * @param state open, reserved, settled, held or the state of a check number
     * @param selectable true for an invoice or credit that is open and free
     */
    record AccountRow(
            String key,
            LocalDate date,
            long entry,
            String kind,
            String words,
            String reference,
            String amount,
            String currency,
            @Nullable String open,
            @Nullable String balance,
            @Nullable LocalDate dueDate,
            String state,
            boolean settled,
            boolean held,
            boolean selectable) {}

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

    /** Vendors by name, number or group with what is open, a page after the given name and id. */
    @GetMapping("/list")
    List<ListedVendor> list(
            Actor by,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(required = false) String group,
            @RequestParam(defaultValue = "0") int from) {
        by.mayDo(Deed.READ);
        return pages.list(text, group, Math.max(0, from));
    }

    @GetMapping(value = "/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(Actor by) {
        by.mayDo(Deed.READ);
        return Csv.answer("vendors.csv", VendorPages.COLUMNS, pages.all());
    }

    @GetMapping("/{id}")
    VendorView one(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return pages.one(new VendorId(id));
    }

    @GetMapping("/{id}/account")
    List<AccountRow> account(
            Actor by, @PathVariable long id, @RequestParam(defaultValue = "ALL") VendorPages.Show show) {
        by.mayDo(Deed.READ);
        return pages.account(new VendorId(id), show);
    }

    @GetMapping(value = "/{id}/account/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> accountCsv(
            Actor by, @PathVariable long id, @RequestParam(defaultValue = "ALL") VendorPages.Show show) {
        by.mayDo(Deed.READ);
        return Csv.answer(
                "vendor-" + id + ".csv",
                List.of("date", "entry", "what", "reference", "amount", "currency", "open", "balance", "state"),
                pages.account(new VendorId(id), show).stream()
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

    @PostMapping("/{id}/hold")
    @Needs(Deed.HOLD)
    VendorView hold(Actor by, @PathVariable long id, @Valid @RequestBody VendorReason wanted) {
        vendors.hold(by, new VendorId(id), wanted.reason());
        return pages.one(new VendorId(id));
    }

    @PostMapping("/{id}/release")
    @Needs(Deed.RELEASE_VENDOR)
    VendorView release(Actor by, @PathVariable long id, @Valid @RequestBody VendorReason wanted) {
        vendors.release(by, new VendorId(id), wanted.reason());
        return pages.one(new VendorId(id));
    }
}
