#pragma once
// Points by station and offset before they come in: which alignment, what lands where, what does not.

#include <QDialog>

#include "app/base/session.h"
#include "core/operations/stationed_points.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace erdwerk::app {

class StationImport : public QDialog {
    Q_OBJECT
public:
    /// `proposed`: the alignment that is chosen at first.
    StationImport(Session& session, const QString& path, std::vector<route::StationedPoint> rows,
                  ObjectId proposed, QWidget* parent);
    [[nodiscard]] QComboBox* alignments() { return alignments_; }
    [[nodiscard]] QTableWidget* table() { return table_; }
    [[nodiscard]] QCheckBox* tied() { return tied_; }
    [[nodiscard]] QPushButton* importButton() { return import_; }

private:
    void refresh();
    void bringIn();

    Session& session_;
    QString name_;
    std::vector<route::StationedPoint> rows_;
    QComboBox* alignments_;
    QCheckBox* tied_;
    QLabel* summary_;
    QTableWidget* table_;
    QPushButton* import_;
};

}  // namespace erdwerk::app
