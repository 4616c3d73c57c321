package leveltally.server.vendors;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Changes of addresses and bank details, by two people. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class VendorChangeController {
    private final VendorChanges changes;
    private final ChangeViews views;

    VendorChangeController(VendorChanges changes, ChangeViews views) {
        this.changes = changes;
        this.views = views;
    }

    /** What happens to the bank details. */
    enum Bank {
        KEEP,
        NONE,
        NEW
    }

    record ProposeChange(
            @Nullable Long remitTo,
            @NotNull @Size(max = 120) String payee,
            @NotNull @Size(max = 10) List<@NotNull @Size(max = 120) String> lines,
            @NotNull @Size(max = 20) String postalCode,
            @NotNull Bank bank,
            @Nullable @Size(max = 20) String routing,
            @Nullable @Size(max = 60) String bankAccount,
            @Nullable Boolean savings,
            @Nullable @Size(max = 20) String bic,
            @NotNull @Size(max = 200) String why) {}

    /** The bank details as the second person types them, unseen. */
    record TypedAccount(
            @Nullable @Size(max = 20) String routing,
            @Nullable @Size(max = 60) String account,
            @Nullable Boolean savings,
            @Nullable @Size(max = 20) String bic) {
        @Nullable
        BankDetails bank() {
            return account == null || account.isBlank()
                    ? null
                    : BankDetails.typed(given(routing), account, Boolean.TRUE.equals(savings), given(bic));
        }
    }

    private static String given(@Nullable String typed) {
        return typed == null ? "" : typed;
    }

    record RefuseChange(@NotNull @Size(max = 200) String reason) {}

    record ConfirmMany(@NotEmpty @Size(max = 500) List<Long> ids) {}

    /** {@code mine} is true for whoever proposed it; {@code typesAccount} where confirming it asks for the account again. */
    record ChangeView(
            long id,
            long vendor,
            String vendorName,
            long remitTo,
            String what,
            List<String> before,
            String beforeBank,
            List<String> after,
            String afterBank,
            String why,
            String proposedBy,
            Instant proposedAt,
            String state,
            @Nullable String decidedBy,
            @Nullable Instant decidedAt,
            @Nullable LocalDate decidedOn,
            String decidedWhy,
            boolean mine,
            boolean typesAccount) {
        static ChangeView of(ToldChange told, Actor by) {
            return new ChangeView(
                    told.id(),
                    told.vendor(),
                    told.vendorName(),
                    told.remitTo(),
                    told.what(),
                    told.before(),
                    told.beforeBank(),
                    told.after(),
                    told.afterBank(),
                    told.why(),
                    told.proposedBy(),
                    told.proposedAt(),
                    told.state(),
                    told.decidedBy(),
                    told.decidedAt(),
                    told.decidedOn(),
                    told.decidedWhy(),
                    told.proposedById() == by.person().value(),
                    told.rebanked());
        }
    }

    record ProposedView(long id) {}

    /** {@code batches} hold payments that were asked for with what was before; those payments are refused from now on. */
    record ConfirmedView(List<String> batches) {}

    record ConfirmedCount(int count) {}

    @GetMapping("/vendor-changes")
    List<ChangeView> waiting(Actor by) {
        return views.waiting().stream().map(told -> ChangeView.of(told, by)).toList();
    }

    @GetMapping("/vendors/{id}/changes")
    List<ChangeView> history(Actor by, @PathVariable long id) {
        return views.of(new VendorId(id)).stream()
                .map(told -> ChangeView.of(told, by))
                .toList();
    }

    @PostMapping("/vendors/{id}/changes")
    @Needs(Deed.PROPOSE_VENDOR_CHANGE)
    ProposedView propose(Actor by, @PathVariable long id, @Valid @RequestBody ProposeChange wanted) {
        BankDetails bank = wanted.bank() == Bank.NEW
                ? BankDetails.typed(
                        given(wanted.routing()),
                        given(wanted.bankAccount()),
                        Boolean.TRUE.equals(wanted.savings()),
                        given(wanted.bic()))
                : null;
        return new ProposedView(changes.propose(
                by,
                new VendorId(id),
                new VendorChanges.Wanted(
                        wanted.remitTo(),
                        wanted.payee(),
                        wanted.lines(),
                        wanted.postalCode(),
                        wanted.bank() == Bank.KEEP,
                        bank,
                        wanted.why())));
    }

    @PostMapping("/vendor-changes/{id}/confirm")
    @Needs(Deed.CONFIRM_VENDOR_CHANGE)
    ConfirmedView confirm(
            Actor by, @PathVariable long id, @Valid @RequestBody(required = false) @Nullable TypedAccount typed) {
        return new ConfirmedView(changes.confirm(by, id, typed == null ? null : typed.bank()));
    }

    @PostMapping("/vendor-changes/confirm")
    @Needs(Deed.CONFIRM_VENDOR_CHANGE)
    ConfirmedCount confirmMany(Actor by, @Valid @RequestBody ConfirmMany wanted) {
        return new ConfirmedCount(changes.confirmAll(by, wanted.ids()));
    }

    @PostMapping("/vendor-changes/{id}/refuse")
    @Needs(Deed.CONFIRM_VENDOR_CHANGE)
    void refuse(Actor by, @PathVariable long id, @Valid @RequestBody RefuseChange wanted) {
        changes.refuse(by, id, wanted.reason());
    }

    @PostMapping("/vendor-changes/{id}/take-back")
    @Needs(Deed.PROPOSE_VENDOR_CHANGE)
    void takeBack(Actor by, @PathVariable long id) {
        changes.takeBack(by, id);
    }
}
