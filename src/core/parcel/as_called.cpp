#include "core/parcel/as_called.h"

namespace erdwerk::parcel {

ParcelGeometry asCalled(ParcelGeometry geometry, double calledPerUnit, Angle north) {
    for (auto& c : geometry.courses) {
        c.azimuth = (c.azimuth - north).normalized();
        c.distance *= calledPerUnit;
        c.radius *= calledPerUnit;
        c.arcLength *= calledPerUnit;
    }
    geometry.area *= calledPerUnit * calledPerUnit;
    return geometry;
}

}  // namespace erdwerk::parcel
