package leveltally.core.electronic;

import leveltally.core.Refusal;
import leveltally.core.vendors.BankDetails;

/**
 * What a bank agreed on with the company for its files of credit transfers; data of the way to pay.
 *
 * @param message which version of the standard the bank reads
 * @param name the company's, at most 70 characters
 * @param id the company's number at its bank, at most 35 characters; empty where it has none
 * @param account what is debited
 * @param charges who bears them
 * @param structured whether each paid document is told by itself, not all of them as one text
 */
public record TransferSender(
        Message message, String name, String id, BankDetails account, Charges charges, boolean structured) {
    private static final int LONGEST_NAME = 70;
    private static final int LONGEST_ID = 35;

    /** Versions of the customer credit transfer initiation (ISO 20022). */
    public enum Message {
        PAIN_001_03("pain.001.001.03"),
        PAIN_001_09("pain.001.001.09");

        private final String id;

        Message(String id) {
            this.id = id;
        }

        /** Such as {@code pain.001.001.09}. */
        public String id() {
            return id;
        }

        /** Its namespace. */
        String namespace() {
            return "urn:iso:std:iso:20022:tech:xsd:" + id;
        }
    }

    /** Who bears the charges (ISO 20022 ChargeBearerType1Code). */
    public enum Charges {
        /** As the service level says. */
        SLEV,
        /** Each side its own bank's. */
        SHAR,
        /** The company. */
        DEBT,
        /** The payee. */
        CRED
    }

    /** @throws Refusal naming the field that has no place in the message */
    public TransferSender {
        name = PlainText.TRANSFER.of(name).strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw Refusal.invalidField("transfer-sender", "name", "The company's name has 1 to 70 characters.");
        }
        if (id.length() > LONGEST_ID || !PlainText.TRANSFER.isPlain(id)) {
            throw Refusal.invalidField(
                    "transfer-sender",
                    "id",
                    "Type the number the bank gave you: at most 35 letters, digits and signs.");
        }
    }
}
