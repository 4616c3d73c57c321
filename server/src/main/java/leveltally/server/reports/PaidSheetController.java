package leveltally.server.reports;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Needs;
import leveltally.server.mail.MailView;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The sheet of what a vendor was paid, by mail. */
@RestController
@RequestMapping("/api/vendors/{id}/paid")
@Needs(Deed.READ)
class PaidSheetController {
    private final PaidSheetSending sending;

    PaidSheetController(PaidSheetSending sending) {
        this.sending = sending;
    }

    /** Where it goes, and what became of those sent before. */
    record PaidSheetView(String address, List<MailView> sent) {}

    /** {@code from} null for the usual time back. */
    record PaidSheetWanted(
            @Nullable LocalDate from,
            @NotNull LocalDate to,
            @NotNull @Size(max = 200) String address) {}

    @GetMapping
    PaidSheetView sent(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        PaidSheetSending.Before before = sending.before(by, new VendorId(id));
        return new PaidSheetView(before.address(), before.sent());
    }

    @PostMapping("/mail")
    @Needs(Deed.MAIL_ADVICE)
    void mail(Actor by, @PathVariable long id, @Valid @RequestBody PaidSheetWanted wanted) {
        LocalDate from = wanted.from() == null ? PaidSheet.usualFrom(wanted.to()) : wanted.from();
        sending.send(by, new VendorId(id), from, wanted.to(), wanted.address());
    }
}
