package leveltally.server.electronic;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import leveltally.core.electronic.AchAgreement;
import leveltally.core.electronic.AchSender;
import leveltally.core.electronic.EntryClass;
import leveltally.core.electronic.FileAgreement;
import leveltally.core.electronic.TransferAgreement;
import leveltally.core.electronic.TransferSender.Charges;
import leveltally.core.electronic.TransferSender.Message;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.vendors.PaymentMethod;
import org.jspecify.annotations.Nullable;

/**
 * What a bank agreed on for the files of a way, as it is shown and as it is typed.
 *
 * @param known whether anybody said it yet; otherwise it is a proposal
 * @param ownIban what is shown of the IBAN by which files name the company's account; empty where they name its number
 * @param letters how signs are written that such files cannot carry
 */
record FilesSetting(
        boolean known,
        PaymentMethod method,
        @Nullable AchTyped ach,
        @Nullable TransfersTyped transfers,
        String ownIban,
        String bic,
        String perPayment,
        String perFile,
        String perDay,
        boolean splits,
        String cutOff,
        int ahead,
        String prefix,
        long nextReference,
        long version,
        List<Letter> letters) {

    /** A sign, and what stands for it. */
    record Letter(String sign, String written) {}

    record AchTyped(
            @NotNull @Size(max = 20) String destination,
            @NotNull @Size(max = 60) String destinationName,
            @NotNull @Size(max = 20) String origin,
            @NotNull @Size(max = 60) String originName,
            @NotNull @Size(max = 60) String companyName,
            @NotNull @Size(max = 20) String companyId,
            @NotNull @Size(max = 60) String description,
            @NotNull @Size(max = 20) String odfi,
            boolean balanced,
            @NotNull EntryClass entryClass,
            @Nullable Integer announcedDays) {
        AchAgreement agreement() {
            return new AchAgreement(
                    new AchSender(
                            new RoutingNumber(destination),
                            destinationName.strip(),
                            origin.strip(),
                            originName.strip(),
                            companyName.strip(),
                            companyId.strip(),
                            description.strip(),
                            new RoutingNumber(odfi),
                            null),
                    balanced,
                    entryClass,
                    announcedDays);
        }

        static AchTyped of(AchAgreement agreement) {
            AchSender sender = agreement.sender();
            return new AchTyped(
                    sender.destination().digits(),
                    sender.destinationName(),
                    sender.origin(),
                    sender.originName(),
                    sender.companyName(),
                    sender.companyId(),
                    sender.description(),
                    sender.odfi().digits(),
                    agreement.balanced(),
                    agreement.entryClass(),
                    agreement.announcedDays());
        }
    }

    record TransfersTyped(
            @NotNull Message message,
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 60) String id,
            @NotNull Charges charges,
            boolean structured) {
        TransferAgreement agreement() {
            return new TransferAgreement(message, name, id.strip(), charges, structured);
        }

        static TransfersTyped of(TransferAgreement agreement) {
            return new TransfersTyped(
                    agreement.message(), agreement.name(), agreement.id(), agreement.charges(), agreement.structured());
        }
    }

    /**
     * As it is typed; one of the two.
     *
     * @param iban null to leave the one there is
     */
    record FilesTyped(
            @Nullable @Valid AchTyped ach,
            @Nullable @Valid TransfersTyped transfers,
            @Nullable @Size(max = 60) String iban,
            @NotNull @Size(max = 20) String bic,
            @NotNull @Size(max = 40) String perPayment,
            @NotNull @Size(max = 40) String perFile,
            @NotNull @Size(max = 40) String perDay,
            boolean splits,
            @NotNull @Size(max = 10) String cutOff,
            int ahead,
            @NotNull @Size(max = 10) String prefix,
            long nextReference,
            long version) {
        @Nullable
        FileAgreement agreement() {
            return ach != null ? ach.agreement() : transfers != null ? transfers.agreement() : null;
        }
    }
}
