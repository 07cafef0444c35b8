#pragma once
// What frames are painted with: a painter on paper, and what is painted.

#include <QFont>
#include <QPainter>
#include <QString>
#include <atomic>
#include <functional>

#include "app/base/session.h"
#include "app/base/snapshot.h"
#include "app/plan/plan_canvas.h"
#include "core/paper/room.h"

namespace erdwerk::app {

struct PaperInk {
    QPainter& painter;
    const Snapshot& snapshot;
    ObjectId sheet;
    double mm;  ///< picture units a millimetre; the paper's upper left corner is the origin
    /// Told the layer of what is painted next: "Ground", "Labels" …; may be empty.
    std::function<void(const QString&)> layer = {};
    const std::atomic<bool>* cancel = nullptr;

    [[nodiscard]] const document::Document& document() const { return snapshot.derived.document; }
    [[nodiscard]] const objects::Sheet& of() const { return *document().get<objects::Sheet>(sheet); }
    [[nodiscard]] QRectF room(const paper::Room& r) const {
        return {r.left * mm, r.top * mm, r.width * mm, r.height * mm};
    }
    /// Of so many millimetres.
    [[nodiscard]] QFont font(double millimetres, bool strong = false) const;
    void begin(const QString& name) const {
        if (layer) layer(name);
    }
    /// What is wrong, or has no room, is said on the paper itself.
    void warn(const QRectF& room, const QString& text) const;
};

}  // namespace erdwerk::app
