#pragma once
// Import of a survey file: how to read it, and the first rows as they will be read.

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <vector>

#include "app/base/latest_worker.h"
#include "app/base/session.h"
#include "core/format/survey_csv.h"

namespace erdwerk::app {

class ImportDialog : public QDialog {
    Q_OBJECT
public:
    /// Requires bytes for which a layout was proposed.
    ImportDialog(QString path, std::string bytes, format::CsvLayout layout, LengthUnit projectUnit,
                 QWidget* parent);
    /// All rows as they are read now; nothing while they are being read, and where they cannot be.
    [[nodiscard]] const std::optional<format::CsvPoints>& points() const { return points_; }

private:
    void build();
    QLayout* buildBar();
    void guess();
    void refresh();
    void fillPreview();
    void readAll();
    void fillCounts(Result<format::CsvPoints> read, int choice);

    QString path_;
    const std::string bytes_;
    format::CsvLayout layout_;
    LengthUnit projectUnit_;
    std::optional<format::CsvPoints> points_;
    QComboBox* separator_;
    QCheckBox* header_;
    QCheckBox* comma_;
    QComboBox* unit_;
    QTableWidget* preview_;
    QLabel* counts_;
    QLabel* skipped_;
    QPushButton* import_;
    bool filling_ = false;
    int choice_ = 0;  ///< counts the choices of how to read it
    struct Request {
        format::CsvLayout layout;
        int choice = 0;
    };
    struct Read {
        Result<format::CsvPoints> points;
        int choice = 0;
    };
    /// Reads all rows; last, so that it ends first.
    std::unique_ptr<LatestWorker<Request, Read>> worker_;
};

}  // namespace erdwerk::app
