package buoys.visits;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

public class ServiceVisit {
    private String buoyId;
    private LocalDate day;
    private List<String> work;

    public ServiceVisit(String buoyId, LocalDate day, List<String> work) {
        this.buoyId = buoyId;
        this.day = day;
        this.work = work == null ? new ArrayList<String>() : new ArrayList<String>(work);
    }

    public String getBuoyId() { return buoyId; }
    public LocalDate getDay() { return day; }
    public List<String> getWork() { return Collections.unmodifiableList(work); }

    @Override public boolean equals(Object o) {
        if (!(o instanceof ServiceVisit)) return false;
        ServiceVisit other = (ServiceVisit) o;
        return buoyId.equals(other.buoyId) && day.equals(other.day);
    }
    @Override public int hashCode() { return buoyId.hashCode() * 31 + day.hashCode(); }

    public static List<ServiceVisit> due(List<ServiceVisit> all, LocalDate until) {
        List<ServiceVisit> result = new ArrayList<ServiceVisit>();
        for (ServiceVisit v : all) {
            if (!v.getDay().isAfter(until)) {
                boolean found = false;
                for (ServiceVisit r : result) {
                    if (r.equals(v)) { found = true; break; }
                }
                if (!found) result.add(v);
            }
        }
        return result;
    }
}
