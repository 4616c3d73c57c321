package leveltally.core.electronic;

import java.time.LocalDate;
import java.time.LocalDateTime;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;

/**
 * What is said of a file of payments itself.
 *
 * @param id by which the bank's answer names it, at most 33 letters, digits and hyphens
 * @param made when, by the company's clock
 * @param ofDay counts the files of one day that are told apart by it, from 1
 * @param paysOn the banking day on which payees have the money
 * @param own the account that is debited
 * @param count of its payments, which come to {@code total}
 */
public record FileAbout(
        String id, LocalDateTime made, int ofDay, LocalDate paysOn, BankDetails own, int count, Money total) {
    private static final int LETTERS = 26;

    char modifier() {
        return (char) (ofDay <= LETTERS ? 'A' + ofDay - 1 : '0' + ofDay - LETTERS - 1);
    }
}
