package leveltally.server.proof;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.checks.NumberState;
import leveltally.core.payments.PaymentState;
import leveltally.core.proof.Law;

/** For each law what is looked at, and the statements that find its breaches; each row is one finding in words. */
final class LawQueries {
    /** @param looked a statement that says what was looked at */
    record Queries(String looked, List<String> breaches) {}

    private static final String STEPS_OF_NUMBERS = steps(
            EnumSet.of(NumberState.TAKEN, NumberState.UNACCOUNTED, NumberState.WRITTEN),
            NumberState.class,
            NumberState::next);
    private static final String STEPS_OF_PAYMENTS =
            steps(EnumSet.of(PaymentState.PREPARED), PaymentState.class, PaymentState::next);
    private static final String IN_THE_LEDGER = Arrays.stream(PaymentState.values())
            .filter(PaymentState::isInTheLedger)
            .map(state -> "'" + state + "'")
            .collect(Collectors.joining(", "));

    static final Map<Law, Queries> ALL = new EnumMap<>(Law.class);

    static {
        put(Law.L1, "SELECT CONCAT(COUNT(*), ' entries') FROM journal_entry", """
                SELECT CONCAT('Entry ', e.id, ' is off by ', ABS(COALESCE(SUM(l.debit_minor - l.credit_minor), 0)),
                  ' minor units of ', COALESCE(l.currency, 'no line'))
                FROM journal_entry e LEFT JOIN journal_line l ON l.entry_id = e.id
                GROUP BY e.id, l.currency HAVING SUM(l.debit_minor) <> SUM(l.credit_minor) OR COUNT(l.id) < 2
                """, """
                SELECT CONCAT('Line ', l.id, ' belongs to entry ', l.entry_id, ', which is not there')
                FROM journal_line l LEFT JOIN journal_entry e ON e.id = l.entry_id WHERE e.id IS NULL
                """);
        put(Law.L2, "SELECT CONCAT(COUNT(*), ' invoices and credits') FROM invoice", """
                SELECT CONCAT('Invoice ', i.id, ' (', i.reference, ') is open at ', i.open_minor, ' but its rows leave ',
                  i.amount_minor - COALESCE(SUM(s.amount_minor), 0))
                FROM invoice i LEFT JOIN settlement s ON s.invoice_id = i.id
                GROUP BY i.id, i.reference, i.open_minor, i.amount_minor
                HAVING i.open_minor <> i.amount_minor - COALESCE(SUM(s.amount_minor), 0)
                """, """
                SELECT CONCAT('Invoice ', x.id, ' was open at ', x.open_then, ' of ', x.amount_minor, ' on ', x.ledger_date)
                FROM (SELECT i.id, i.amount_minor, s.ledger_date, i.amount_minor - SUM(SUM(s.amount_minor))
                    OVER (PARTITION BY i.id ORDER BY s.ledger_date) AS open_then
                  FROM invoice i JOIN settlement s ON s.invoice_id = i.id GROUP BY i.id, i.amount_minor, s.ledger_date) x
                WHERE x.open_then < 0 OR x.open_then > x.amount_minor
                """, """
                SELECT CONCAT('Invoice ', i.id, ' (', i.reference, ') is of ', i.ledger_date, ' but settled on ', s.ledger_date)
                FROM settlement s JOIN invoice i ON i.id = s.invoice_id WHERE s.ledger_date < i.ledger_date
                """, """
                SELECT CONCAT('Invoice ', i.id, ' (', i.reference, ') keeps ', i.discount_taken_minor, ' of discount and ',
                  i.at_par_minor, ' at par, its rows say ', COALESCE(SUM(CASE WHEN s.kind = 'DISCOUNT' THEN s.amount_minor END), 0),
                  ' and ', COALESCE(SUM(CASE WHEN s.kind NOT IN ('CASH', 'DISCOUNT') THEN s.amount_minor END), 0))
                FROM invoice i LEFT JOIN settlement s ON s.invoice_id = i.id
                GROUP BY i.id, i.reference, i.discount_taken_minor, i.at_par_minor
                HAVING i.discount_taken_minor <> COALESCE(SUM(CASE WHEN s.kind = 'DISCOUNT' THEN s.amount_minor END), 0)
                  OR i.at_par_minor <> COALESCE(SUM(CASE WHEN s.kind NOT IN ('CASH', 'DISCOUNT') THEN s.amount_minor END), 0)
                """, """
                SELECT CONCAT('Row ', s.id, ' of invoice ', s.invoice_id, ' does not mirror row ', o.id, ', which it undoes')
                FROM settlement s JOIN settlement o ON o.id = s.reverses_id
                WHERE o.reverses_id IS NOT NULL OR o.invoice_id <> s.invoice_id OR o.kind <> s.kind OR o.currency <> s.currency
                  OR o.amount_minor <> -s.amount_minor OR o.ledger_date > s.ledger_date
                """);
        put(
                Law.L3,
                "SELECT CONCAT(COUNT(*), ' numbers') FROM check_number",
                """
                SELECT CONCAT(x.account_name, ': no trace of the numbers between ', x.before_gap, ' and ', x.number) FROM (
                  SELECT s.account_name, n.number, COALESCE(LAG(n.number)
                    OVER (PARTITION BY s.id ORDER BY n.number), s.first_number - 1) AS before_gap
                  FROM check_number n JOIN series_of_account s ON s.id = n.series_id WHERE s.stock <> 'BY_HAND') x
                WHERE x.number <> x.before_gap + 1
                """,
                """
                SELECT CONCAT(s.account_name, ': the next number is ', s.next_number, ', the last one kept ',
                  COALESCE(MAX(n.number), s.first_number - 1))
                FROM series_of_account s LEFT JOIN check_number n ON n.series_id = s.id WHERE s.stock <> 'BY_HAND'
                GROUP BY s.id, s.account_name, s.next_number, s.first_number
                HAVING s.next_number <> COALESCE(MAX(n.number), s.first_number - 1) + 1
                """,
                """
                SELECT CONCAT('Number ', n.number, ' is ', LOWER(n.state), ' but its history ',
                  COALESCE(CONCAT('ends ', LOWER(e.to_state)), 'has no end'))
                FROM check_number n LEFT JOIN number_event e ON e.check_number_id = n.id AND e.step = n.steps
                WHERE e.id IS NULL OR n.state <> e.to_state
                  OR n.steps <> (SELECT COUNT(*) FROM number_event h WHERE h.check_number_id = n.id)
                """,
                """
                SELECT CONCAT('Number ', x.number, ' went from ', LOWER(x.came_from), ' to ', LOWER(x.to_state))
                FROM (SELECT n.number, h.to_state, COALESCE(LAG(h.to_state)
                    OVER (PARTITION BY h.check_number_id ORDER BY h.step), 'NOWHERE') AS came_from
                  FROM number_event h JOIN check_number n ON n.id = h.check_number_id) x
                WHERE CONCAT(x.came_from, ' ', x.to_state) NOT IN (%s)
                """.formatted(STEPS_OF_NUMBERS),
                """
                SELECT CONCAT('Number ', n.number, ' is ', LOWER(n.state), ' but its payment ',
                  COALESCE(CONCAT('is ', LOWER(p.state)), 'is missing'))
                FROM check_number n LEFT JOIN payment p ON p.id = n.payment_id
                WHERE (n.state = 'PRINTED' AND (p.id IS NULL OR p.state = 'TAKEN_OUT'))
                  OR (n.state = 'TAKEN' AND (p.id IS NULL OR p.state <> 'PREPARED'))
                  OR (n.state = 'WRITTEN' AND (p.id IS NULL OR p.posted_entry_id IS NULL))
                """,
                """
                SELECT CONCAT('The payment to ', p.payee, ' is ', LOWER(p.state), ' but its history ',
                  COALESCE(CONCAT('ends ', LOWER(e.to_state)), 'has no end'))
                FROM payment p LEFT JOIN payment_event e ON e.payment_id = p.id AND e.step = p.steps
                WHERE e.payment_id IS NULL OR p.state <> e.to_state
                  OR p.steps <> (SELECT COUNT(*) FROM payment_event h WHERE h.payment_id = p.id)
                """,
                """
                SELECT CONCAT('The payment to ', x.payee, ' went from ', LOWER(x.came_from), ' to ', LOWER(x.to_state))
                FROM (SELECT p.payee, h.to_state, COALESCE(LAG(h.to_state)
                    OVER (PARTITION BY h.payment_id ORDER BY h.step), 'NOWHERE') AS came_from
                  FROM payment_event h JOIN payment p ON p.id = h.payment_id) x
                WHERE CONCAT(x.came_from, ' ', x.to_state) NOT IN (%s)
                """.formatted(STEPS_OF_PAYMENTS),
                ClearingQueries.CLEARED_BY_ITS_BANK,
                """
                SELECT CONCAT('The payment to ', p.payee, ' is ', LOWER(p.state), ' but the ledger ',
                  CASE WHEN p.undone_entry_id IS NOT NULL THEN 'has it undone' WHEN p.posted_entry_id IS NOT NULL
                    THEN 'has it' ELSE 'does not have it' END)
                FROM payment p
                WHERE (p.posted_entry_id IS NOT NULL AND p.undone_entry_id IS NULL) <> (p.state IN (%s))
                  OR (p.undone_entry_id IS NOT NULL) <> (p.state IN ('VOIDED', 'REVERSED'))
                """.formatted(IN_THE_LEDGER),
                """
                SELECT CONCAT('The check to ', p.payee, ' is ', LOWER(p.state), ' without its number')
                FROM payment p JOIN batch b ON b.id = p.batch_id AND b.method = 'CHECK'
                LEFT JOIN check_number n ON n.live_payment_id = p.id
                  AND n.state = CASE b.purpose WHEN 'OUTSIDE' THEN 'WRITTEN' ELSE 'PRINTED' END
                WHERE p.posted_entry_id IS NOT NULL AND n.id IS NULL
                """,
                """
                SELECT CONCAT('The payment to ', p.payee, ' of ', p.check_date, ', made elsewhere, is posted without its number')
                FROM batch b JOIN payment p ON p.batch_id = b.id LEFT JOIN outside_number n ON n.payment_id = p.id
                WHERE b.purpose = 'OUTSIDE' AND b.method <> 'CHECK' AND p.posted_entry_id IS NOT NULL AND n.payment_id IS NULL
                """);
        put(
                Law.L4,
                "SELECT CONCAT(COUNT(*), ' payments') FROM payment",
                """
                SELECT CONCAT('Payment ', p.id, ' to ', p.payee, ' is ', p.amount_minor, ', its lines come to ',
                  COALESCE(SUM(l.cash_minor), 0))
                FROM payment p LEFT JOIN claim_line l ON l.claim_id = p.claim_id GROUP BY p.id, p.payee, p.amount_minor
                HAVING p.amount_minor <> COALESCE(SUM(l.cash_minor), 0)
                """,
                """
                SELECT CONCAT('Line ', l.id, ' of claim ', l.claim_id, ' pays ', l.gross_minor, ', its accounts come to ',
                  COALESCE(SUM(x.amount_minor), 0))
                FROM claim_line l LEFT JOIN claim_line_account x ON x.line_id = l.id
                WHERE l.kind IN ('PREPAYMENT', 'DIRECT') GROUP BY l.id, l.claim_id, l.gross_minor
                HAVING l.gross_minor <> COALESCE(SUM(x.amount_minor), 0)
                """,
                """
                SELECT CONCAT('Claim ', c.id, ' of ', c.payee, ' is ', c.amount_minor, ', its lines come to ',
                  COALESCE(SUM(l.cash_minor), 0))
                FROM claim c LEFT JOIN claim_line l ON l.claim_id = c.id GROUP BY c.id, c.payee, c.amount_minor
                HAVING c.amount_minor <> COALESCE(SUM(l.cash_minor), 0)
                """,
                """
                SELECT CONCAT('Payment ', p.id, ' to ', p.payee, ' is ', p.amount_minor, ', its cash line ',
                  COALESCE(SUM(l.credit_minor), 0))
                FROM payment p JOIN batch b ON b.id = p.batch_id JOIN paid_from f ON f.way_id = b.way_id
                LEFT JOIN journal_line l ON l.entry_id = p.posted_entry_id AND l.account_id = f.account_id
                WHERE p.posted_entry_id IS NOT NULL GROUP BY p.id, p.payee, p.amount_minor
                HAVING p.amount_minor <> COALESCE(SUM(l.credit_minor), 0)
                """,
                FiledQueries.OF_ITS_AMOUNT,
                """
                SELECT CONCAT('Wire ', w.called, ' to ', p.payee, ' was ordered over ', w.amount_minor, ', its payment is ', p.amount_minor)
                FROM wire_order w JOIN payment p ON p.id = w.payment_id
                WHERE w.amount_minor <> p.amount_minor OR w.currency <> p.currency
                """,
                """
                SELECT CONCAT('Check ', n.number, ' shows ', d.amount_minor, ', its payment is ', p.amount_minor)
                FROM document d JOIN payment p ON p.id = d.payment_id JOIN check_number n ON n.id = d.check_number_id
                WHERE d.amount_minor <> p.amount_minor OR d.currency <> p.currency
                """,
                """
                SELECT CONCAT('Check ', n.number, ': on its paper stands ',
                  COALESCE(CONCAT(JSON_VALUE(k.content, '$.number'), ', ', JSON_VALUE(k.content, '$.payee'), ', ',
                    JSON_VALUE(k.content, '$.amountMinor')), 'nothing that was kept'))
                FROM document d JOIN payment p ON p.id = d.payment_id JOIN check_number n ON n.id = d.check_number_id
                JOIN number_series s ON s.id = n.series_id LEFT JOIN document_content k ON k.document_id = d.id
                WHERE NOT (JSON_VALUE(k.content, '$.amountMinor') <=> p.amount_minor)
                  OR s.stock = 'BLANK' AND NOT (JSON_VALUE(k.content, '$.number') <=> n.number)
                  OR NOT (BINARY JSON_VALUE(k.content, '$.payee') <=> BINARY p.payee)
                """,
                """
                SELECT CONCAT('Entry ', x.id, ' undoes entry ', x.reverses_id, ' but for ', ABS(SUM(x.net)), ' on ', n.code)
                FROM (SELECT e.id, e.reverses_id, l.account_id, l.currency, l.debit_minor - l.credit_minor AS net
                    FROM journal_entry e JOIN journal_line l ON l.entry_id IN (e.id, e.reverses_id)
                    WHERE e.reverses_id IS NOT NULL
                  -- what the deed sent to accounts of its choice
                  UNION ALL SELECT c.entry_id, e.reverses_id, c.from_account_id, c.currency, -c.amount_minor
                    FROM undoing_choice c JOIN journal_entry e ON e.id = c.entry_id
                  UNION ALL SELECT c.entry_id, e.reverses_id, c.to_account_id, c.currency, c.amount_minor
                    FROM undoing_choice c JOIN journal_entry e ON e.id = c.entry_id) x
                JOIN ledger_account n ON n.id = x.account_id
                GROUP BY x.id, x.reverses_id, n.code, x.currency HAVING SUM(x.net) <> 0
                """,
                """
                SELECT CONCAT('Payment ', p.id, ' to ', p.payee, ' is posted instead of payment ', o.id, ', which stands as well')
                FROM payment p JOIN payment o ON o.id = p.replaces_id
                WHERE p.posted_entry_id IS NOT NULL AND o.undone_entry_id IS NULL
                """,
                """
                SELECT CONCAT('Payment ', p.id, ' to ', p.payee, ' is undone by entry ', p.undone_entry_id,
                  ', which undoes another')
                FROM payment p JOIN journal_entry e ON e.id = p.undone_entry_id
                WHERE p.posted_entry_id IS NULL OR NOT e.reverses_id <=> p.posted_entry_id
                """,
                AheadQueries.STANDS_WITH_ITS_PAYMENT,
                ClearingQueries.OPEN_IS_WHAT_IS_LEFT);
        put(Law.L5, "SELECT CONCAT(COUNT(*), ' bank events') FROM bank_event", """
                SELECT CONCAT('The ', LOWER(e.kind), ' of check ', n.number, ' stands in a refused or unknown file')
                FROM bank_event e JOIN check_number n ON n.id = e.check_number_id JOIN bank_file f ON f.id = e.file_id
                LEFT JOIN bank_file_item x ON x.file_id = e.file_id AND x.event_id = e.id AND x.refused_why IS NULL
                WHERE f.state = 'REFUSED' OR f.anew OR x.event_id IS NULL
                """, """
                SELECT CONCAT('The void of check ', n.number, ' was told before its issue')
                FROM bank_event v JOIN check_number n ON n.id = v.check_number_id JOIN bank_file vf ON vf.id = v.file_id
                LEFT JOIN bank_event i ON i.check_number_id = v.check_number_id AND i.kind = 'ISSUE'
                LEFT JOIN bank_file f ON f.id = i.file_id
                WHERE v.kind = 'VOID' AND (f.serial IS NULL OR f.serial > vf.serial)
                """, """
                SELECT CONCAT('Check ', n.number, ' is ', LOWER(n.state), ' but the bank has nothing to hear of it')
                FROM check_register n JOIN series_of_account a ON a.id = n.series_id AND a.positive_pay
                LEFT JOIN bank_event i ON i.check_number_id = n.id AND i.kind = 'ISSUE'
                LEFT JOIN bank_event v ON v.check_number_id = n.id AND v.kind = 'VOID'
                WHERE n.state IN ('OUTSTANDING', 'STOPPED', 'CLEARED', 'VOIDED')
                  AND (i.id IS NULL OR (n.state = 'VOIDED' AND v.id IS NULL))
                """, """
                SELECT CONCAT('The ', LOWER(e.kind), ' of check ', MAX(n.number), ' stands in ', COUNT(*), ' files')
                FROM bank_file_item x JOIN bank_file f ON f.id = x.file_id AND f.state <> 'REFUSED' AND NOT f.anew
                  AND x.refused_why IS NULL
                JOIN bank_event e ON e.id = x.event_id JOIN check_number n ON n.id = e.check_number_id
                GROUP BY e.id, e.kind HAVING COUNT(*) > 1
                """, """
                SELECT CONCAT('The ', LOWER(e.kind), ' of check ', n.number, ' says ', e.payee, ', ', e.amount_minor, ', ',
                  e.event_date, ', its payment ', p.payee, ', ', p.amount_minor, ', ', p.check_date)
                FROM bank_event e JOIN check_number n ON n.id = e.check_number_id LEFT JOIN payment p ON p.id = n.payment_id
                WHERE p.id IS NULL OR BINARY e.payee <> BINARY p.payee OR e.amount_minor <> p.amount_minor
                  OR e.currency <> p.currency OR (e.kind = 'ISSUE' AND e.event_date <> p.check_date)
                """);
        put(Law.L6, "SELECT CONCAT(COUNT(*), ' payments') FROM payment", """
                SELECT CONCAT('The payment to ', MAX(p.payee), ' in batch ', p.batch_id, ' has ',
                  COUNT(DISTINCT CASE WHEN x.claim_id IS NOT NULL THEN a.person_id END), ' of ', MAX(s.needed),
                  ' approvals at its step ', s.step)
                FROM payment p JOIN claim c ON c.id = p.claim_id JOIN batch b ON b.id = p.batch_id
                JOIN approval_step s ON s.batch_id = b.id AND s.round = b.approval_round
                LEFT JOIN approval a ON a.batch_id = b.id AND a.round = b.approval_round AND a.step = s.step
                  AND a.outcome = 'APPROVED'
                LEFT JOIN approval_claim x ON x.approval_id = a.id AND x.claim_id = c.id AND x.digest = c.digest
                GROUP BY p.id, p.batch_id, s.step
                HAVING COUNT(DISTINCT CASE WHEN x.claim_id IS NOT NULL THEN a.person_id END) < MAX(s.needed)
                """, """
                SELECT CONCAT('The payment to ', p.payee, ' in batch ', p.batch_id, ' was never sent for approval')
                FROM payment p JOIN batch b ON b.id = p.batch_id
                LEFT JOIN approval_step s ON s.batch_id = b.id AND s.round = b.approval_round WHERE s.step IS NULL
                """);
        put(
                Law.L7,
                "SELECT CONCAT(COUNT(*), ' approvals') FROM approval WHERE outcome = 'APPROVED'",
                """
                SELECT CONCAT(p.name, ' approved batch ', a.batch_id, ', which was prepared or changed by ', h.name)
                FROM approval a JOIN person p ON p.id = a.person_id
                JOIN (SELECT k.batch_id, k.person_id, q.name FROM hand k JOIN person q ON q.id = k.person_id) h
                  ON h.batch_id = a.batch_id AND h.person_id IN (a.person_id, a.on_behalf_of)
                JOIN batch b ON b.id = a.batch_id AND b.approval_round = a.round WHERE a.outcome = 'APPROVED'
                """,
                """
                SELECT CONCAT(p.name, ' answered batch ', a.batch_id, ' twice, in steps ', a.step, ' and ', o.step)
                FROM approval a JOIN approval o ON o.batch_id = a.batch_id AND o.round = a.round AND o.id > a.id
                  AND o.outcome = 'APPROVED'
                  AND (o.person_id IN (a.person_id, a.on_behalf_of) OR o.on_behalf_of IN (a.person_id, a.on_behalf_of))
                JOIN person p ON p.id = a.person_id WHERE a.outcome = 'APPROVED'
                """,
                """
                SELECT DISTINCT CONCAT(p.name, ' approved a payment to ', n.name, ' in batch ', a.batch_id,
                  ' after changing that vendor')
                FROM approval a JOIN approval_claim x ON x.approval_id = a.id JOIN claim c ON c.id = x.claim_id
                JOIN vendor_change v ON v.vendor_id = c.vendor_id AND v.state = 'CONFIRMED' AND v.decided_at < a.at
                  AND v.decided_on BETWEEN a.business_date - INTERVAL 30 DAY AND a.business_date
                  AND (v.proposed_by IN (a.person_id, a.on_behalf_of) OR v.decided_by IN (a.person_id, a.on_behalf_of))
                JOIN vendor n ON n.id = v.vendor_id JOIN person p ON p.id = a.person_id WHERE a.outcome = 'APPROVED'
                """,
                """
                SELECT CONCAT('The ', v.what, ' of ', n.name, ' changed by one person alone')
                FROM vendor_change v JOIN vendor n ON n.id = v.vendor_id
                WHERE v.state = 'CONFIRMED' AND (v.decided_by IS NULL OR v.decided_by = v.proposed_by)
                """,
                """
                SELECT CONCAT('The ', LOWER(c.what), ' of ', p.name, ' were given by one person alone')
                FROM person_change c JOIN person p ON p.id = c.person_id WHERE c.state = 'CONFIRMED'
                  AND (c.decided_by IS NULL OR c.decided_by IN (c.proposed_by, c.person_id))
                """,
                """
                SELECT DISTINCT CONCAT('Invoices were cancelled with the payment to ', p.payee, ' without a second person')
                FROM undoing_choice c JOIN payment p ON p.id = c.payment_id
                LEFT JOIN undoing u ON u.id = c.undoing_id AND u.by_two AND u.state = 'DONE' AND u.decided_by <> u.asked_by
                WHERE u.id IS NULL
                """,
                """
                SELECT CONCAT('Routes ', r.id, ' were made and confirmed by one person alone') FROM approval_policy r
                WHERE r.confirmed_by = r.made_by AND r.confirmed_at <> r.made_at
                """,
                """
                SELECT CONCAT('The address of ', n.name, ' is not what two people agreed on')
                FROM remit_to t JOIN vendor n ON n.id = t.vendor_id
                JOIN vendor_change v ON v.id = (SELECT MAX(w.id) FROM vendor_change w
                  WHERE w.remit_to_id = t.id AND w.state = 'CONFIRMED')
                WHERE BINARY v.after_payee <> BINARY t.payee OR BINARY v.after_address <> BINARY t.address
                  OR v.after_bank_key <> t.bank_key OR v.after_account_key <> t.account_key OR v.after_bank_kind <> t.bank_kind
                """);
        put(Law.L8, "SELECT CONCAT(COUNT(*), ' locked periods') FROM period WHERE locked", """
                SELECT CONCAT(k.month, ': ', n.code, ' was ', t.debit_minor, ' / ', t.credit_minor,
                  ' at the lock and is ', COALESCE(s.debit, 0), ' / ', COALESCE(s.credit, 0))
                FROM period_lock k JOIN period_total t ON t.lock_id = k.id JOIN ledger_account n ON n.id = t.account_id
                LEFT JOIN (SELECT e.month, l.account_id, l.currency, SUM(l.debit_minor) AS debit,
                    SUM(l.credit_minor) AS credit FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id
                    GROUP BY e.month, l.account_id, l.currency) s
                  ON s.month = k.month AND s.account_id = t.account_id AND s.currency = t.currency
                WHERE k.unlocked_at IS NULL
                  AND (t.debit_minor <> COALESCE(s.debit, 0) OR t.credit_minor <> COALESCE(s.credit, 0))
                """, """
                SELECT CONCAT('Entry ', e.id, ' was written into ', k.month, ' while it was locked')
                FROM period_lock k JOIN journal_entry e ON e.month = k.month AND e.made_at > k.locked_at
                  AND (k.unlocked_at IS NULL OR e.made_at < k.unlocked_at)
                """, """
                SELECT CONCAT(k.month, ': ', n.code, ' had no line at the lock and has ', SUM(l.debit_minor), ' / ',
                  SUM(l.credit_minor))
                FROM period_lock k JOIN journal_entry e ON e.month = k.month JOIN journal_line l ON l.entry_id = e.id
                JOIN ledger_account n ON n.id = l.account_id
                LEFT JOIN period_total t ON t.lock_id = k.id AND t.account_id = l.account_id AND t.currency = l.currency
                WHERE k.unlocked_at IS NULL AND t.lock_id IS NULL GROUP BY k.id, k.month, n.code, l.currency
                """, """
                SELECT CONCAT(k.month, ': ', COUNT(s.id), ' settlements are dated in it, ', k.settlements, ' were at the lock')
                FROM period_lock k LEFT JOIN settlement s ON s.ledger_date
                  BETWEEN CONCAT(k.month, '-01') AND LAST_DAY(CONCAT(k.month, '-01'))
                WHERE k.unlocked_at IS NULL GROUP BY k.id, k.month, k.settlements HAVING COUNT(s.id) <> k.settlements
                """, """
                SELECT CONCAT('Row ', s.id, ' of invoice ', s.invoice_id, ' is of ', s.ledger_date, ', its entry of ', e.ledger_date)
                FROM settlement s JOIN journal_entry e ON e.id = s.entry_id WHERE e.ledger_date <> s.ledger_date
                """);
        put(Law.L9, "SELECT CONCAT(COUNT(*), ' reservations') FROM reservation", """
                SELECT CONCAT('Invoice ', l.reference, ' stands in ', COUNT(*), ' live claims')
                FROM claim_line l JOIN standing_claim c ON c.id = l.claim_id JOIN batch b ON b.id = c.batch_id
                LEFT JOIN payment p ON p.claim_id = c.id
                WHERE b.state NOT IN ('POSTED', 'WITHDRAWN') AND p.posted_entry_id IS NULL AND l.invoice_id IS NOT NULL
                GROUP BY l.invoice_id, l.reference HAVING COUNT(*) > 1
                """, """
                SELECT CONCAT('Invoice ', l.reference, ' is in live batch ', b.id, ' without being reserved')
                FROM claim_line l JOIN standing_claim c ON c.id = l.claim_id JOIN batch b ON b.id = c.batch_id
                LEFT JOIN payment p ON p.claim_id = c.id
                LEFT JOIN reservation r ON r.invoice_id = l.invoice_id AND r.claim_id = c.id
                WHERE b.state NOT IN ('POSTED', 'WITHDRAWN') AND p.posted_entry_id IS NULL AND r.invoice_id IS NULL
                  AND l.invoice_id IS NOT NULL
                """, """
                SELECT CONCAT('Invoice ', r.invoice_id, ' is still reserved by batch ', b.id, ', which is ', LOWER(b.state))
                FROM reservation r JOIN batch b ON b.id = r.batch_id WHERE b.state IN ('POSTED', 'WITHDRAWN')
                """);
        put(
                Law.L11,
                "SELECT CONCAT(COUNT(*), ' open, and every period end') FROM invoice WHERE open_minor > 0",
                """
                SELECT CONCAT(n.code, ' ', x.currency, ': the ledger says ', SUM(x.ledger), ', open invoices less credits ',
                  SUM(x.open))
                FROM (SELECT l.account_id, l.currency, l.credit_minor - l.debit_minor AS ledger, 0 AS open
                    FROM journal_line l JOIN ledger_account a ON a.id = l.account_id AND a.kind = 'PAYABLES'
                  UNION ALL SELECT payables_account_id, currency, 0,
                    CASE WHEN kind = 'CREDIT' THEN -open_minor ELSE open_minor END FROM invoice WHERE kind <> 'PREPAYMENT') x
                JOIN ledger_account n ON n.id = x.account_id
                GROUP BY n.code, x.currency HAVING SUM(x.ledger) <> SUM(x.open)
                """,
                """
                SELECT CONCAT(n.code, ' ', x.currency, ' at the end of ', x.month, ': the ledger says ', x.ledger,
                  ', open invoices less credits ', x.open)
                FROM (SELECT y.account_id, y.currency, y.month,
                    SUM(SUM(y.ledger)) OVER (PARTITION BY y.account_id, y.currency ORDER BY y.month) AS ledger,
                    SUM(SUM(y.open)) OVER (PARTITION BY y.account_id, y.currency ORDER BY y.month) AS open
                  FROM (SELECT l.account_id, l.currency, e.month, l.credit_minor - l.debit_minor AS ledger, 0 AS open
                      FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id
                      JOIN ledger_account a ON a.id = l.account_id AND a.kind = 'PAYABLES'
                    UNION ALL SELECT i.payables_account_id, i.currency, DATE_FORMAT(i.ledger_date, '%Y-%m'), 0,
                      CASE WHEN i.kind = 'CREDIT' THEN -i.amount_minor ELSE i.amount_minor END FROM invoice i
                      WHERE i.kind <> 'PREPAYMENT'
                    UNION ALL SELECT i.payables_account_id, i.currency, DATE_FORMAT(s.ledger_date, '%Y-%m'), 0,
                      CASE WHEN i.kind = 'CREDIT' THEN s.amount_minor ELSE -s.amount_minor END
                      FROM settlement s JOIN invoice i ON i.id = s.invoice_id AND i.kind <> 'PREPAYMENT') y
                  GROUP BY y.account_id, y.currency, y.month) x
                JOIN ledger_account n ON n.id = x.account_id WHERE x.ledger <> x.open
                """,
                AheadQueries.TIED_TO_THE_LEDGER);
        put(
                Law.L12,
                "SELECT CONCAT(COUNT(*), ' electronic payments') FROM payment p JOIN batch b ON b.id = p.batch_id"
                        + " WHERE b.method <> 'CHECK'",
                """
                SELECT CONCAT('Check ', n.number, ' is printed for a payment that goes another way') FROM check_number n
                JOIN payment p ON p.id = n.payment_id JOIN batch b ON b.id = p.batch_id
                JOIN number_series s ON s.id = n.series_id WHERE b.method <> 'CHECK' OR s.way_id <> b.way_id
                """,
                FiledQueries.IN_ONE_FILE,
                FiledQueries.AS_IT_STANDS,
                FiledQueries.POSTED_WHEN_TAKEN,
                FiledQueries.NEVER_ON_PAPER);
    }

    private LawQueries() {}

    /** Every step core allows, from nowhere on, as a list of SQL. */
    private static <S extends Enum<S>> String steps(Set<S> births, Class<S> states, Function<S, Set<S>> next) {
        Stream<String> born = births.stream().map(first -> "'NOWHERE " + first + "'");
        Stream<String> steps = Arrays.stream(states.getEnumConstants())
                .flatMap(from -> next.apply(from).stream().map(to -> "'" + from + " " + to + "'"));
        return Stream.concat(born, steps).collect(Collectors.joining(", "));
    }

    private static void put(Law law, String looked, String... breaches) {
        ALL.put(law, new Queries(looked, List.of(breaches)));
    }
}
