package app.knottag.server.change;

import app.knottag.core.plan.Method;

/** What is to change about an endpoint; null leaves as it is, empty text clears. */
public record ChangeRequest(
        String name,
        String address,
        String mac,
        String serial,
        String model,
        String place,
        String outlet,
        String switchPort,
        String hostName,
        Method method,
        String partnerName,
        String partnerAddress,
        String reason) {

    /** Changes what stands on the label alone. */
    public static ChangeRequest facts(String mac, String serial, String model, String reason) {
        return new ChangeRequest(null, null, mac, serial, model, null, null, null, null, null, null, null, reason);
    }
}
