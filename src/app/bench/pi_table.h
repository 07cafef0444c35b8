#pragma once
// The PIs of an alignment as a table, typed and pasted.

#include <QTableWidget>

#include "app/base/session.h"
#include "core/route/pi_figures.h"

namespace erdwerk::app {

class PiTable : public QTableWidget {
    Q_OBJECT
public:
    explicit PiTable(Session& session, QWidget* parent = nullptr);
    void list(ObjectId alignment);
    [[nodiscard]] ObjectId alignment() const { return alignment_; }
    /// Whether an alignment can be listed: it has PIs, its own or those of its line.
    static bool has(const derive::Derived& derived, ObjectId alignment);

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] std::optional<document::Edit> cellEdit(int row, int column, const QString& text) const;
    void edited(int row, int column);
    void insertAfter();
    void removeCurrent();
    void fillRow(const route::Pi& pi, const route::PiFigures& figures, int row,
                 const route::AlignmentGeometry& line);

    Session& session_;
    ObjectId alignment_;
    bool own_ = false;
    bool filling_ = false;
};

}  // namespace erdwerk::app
