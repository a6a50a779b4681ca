package brightlantern.app.job;

import java.util.Locale;

/**
 * What the workshop says of itself on reports, and in what it reckons.
 *
 * @param address in lines
 * @param hourlyRate price of an hour of work, without tax
 * @param taxPercent that is added to prices; 0 for none
 * @param decimalComma whether numbers on reports have a comma before their decimals
 * @param keepMonths after its closing for which a job keeps what is the customer's; 0 for good
 */
public record Workshop(
        String name,
        String address,
        double hourlyRate,
        double taxPercent,
        String currency,
        boolean decimalComma,
        int keepMonths) {
    /** An amount of money with its currency, as reports show it. */
    public String money(double amount) {
        return String.format(
                decimalComma ? Locale.GERMAN : Locale.ENGLISH, "%,.2f %s", amount, currency);
    }

    /** An amount with its tax. */
    public double taxed(double amount) {
        return amount * (1 + taxPercent / 100);
    }

    /** Price of a minute of work. */
    public double minute() {
        return hourlyRate / 60;
    }
}
