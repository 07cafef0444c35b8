#pragma once
// Stations and offsets of what is selected, or of all survey points, along an alignment.

#include <QTableWidget>

#include "app/base/session.h"
#include "core/format/table_file.h"
#include "core/operations/stationed_points.h"

namespace erdwerk::app {

class StationTable : public QTableWidget {
    Q_OBJECT
public:
    explicit StationTable(Session& session, QWidget* parent = nullptr);
    void list(ObjectId alignment);
    /// All of it, whatever is shown.
    [[nodiscard]] format::Table asTable() const;

protected:
    void showEvent(QShowEvent* event) override;

private:
    void fill();

    Session& session_;
    ObjectId alignment_;
    std::vector<operations::StationRow> rows_;
};

}  // namespace erdwerk::app
