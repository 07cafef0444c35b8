#pragma once
// What a long-section shows: distance across, height up.

#include <QColor>
#include <QString>
#include <functional>
#include <optional>
#include <vector>

namespace erdwerk::app {

struct SectionPoint {
    double distance = 0;
    std::optional<double> height;
};

struct SectionSeries {
    QString name;  ///< in the legend; empty: not there
    QColor colour;
    double width = 1.5;
    bool dashed = false;
    std::vector<SectionPoint> points;
    bool dots = false;  ///< points of a cloud: not joined
};

/// A vertex or PVI that can be dragged up and down (and along, when `along`).
struct SectionHandle {
    double distance = 0;
    double height = 0;
    QString text;
    bool square = true;  ///< corner or PVI; else a short bar (grade point)
    bool along = false;
};

/// A high or low point.
struct SectionMark {
    double distance = 0;
    double height = 0;
    QString text;
    bool high = true;
};

/// A stretch that is pointed out: its grade is beyond the limits.
struct SectionSpan {
    double from = 0;
    double to = 0;
    QString text;
};

/// A row of figures under the section.
struct SectionRowCells {
    QString name;
    struct Cell {
        double from = 0;  ///< a place, or a stretch
        double to = 0;
        QString text;
    };
    std::vector<Cell> cells;
};

struct SectionData {
    std::vector<SectionSeries> series;
    std::vector<SectionHandle> handles;
    std::vector<SectionMark> marks;
    std::vector<SectionSpan> spans;
    double exaggeration = 0;  ///< 0: fills the height
    /// Shade between the first two series: first above second is fill, below is cut.
    bool shadeDifference = false;
    /// Straights between handles can be dragged, and curves pulled out of handles.
    bool stretches = false;
    std::function<QString(double)> station;  ///< text of a distance
    std::vector<SectionRowCells> rows;       ///< under it, from above
    bool stationsInRows = false;             ///< they need not stand under it once more
    QString empty;                           ///< shown when there is nothing to draw
};

}  // namespace erdwerk::app
