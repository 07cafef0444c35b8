#pragma once
// What the windows show: all results of one document, and its findings.

#include <QDateTime>
#include <vector>

#include "core/check/finding.h"
#include "core/derive/derived.h"

namespace erdwerk::terrain {
class Shading;
}

namespace erdwerk::app {

/// All results of one document.
struct Snapshot {
    derive::Derived derived;
    std::vector<check::Finding> findings;
    derive::Results<terrain::Shading> shadings;
    QDateTime made =
        QDateTime::currentDateTimeUtc();  ///< shown in local time: asking for that is not for workers
};

}  // namespace erdwerk::app
