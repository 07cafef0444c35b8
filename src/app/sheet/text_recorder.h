#pragma once
// A paint device that draws nothing and keeps where texts were written: counts those that lie on each other,
// whatever kept them apart.

#include <QPaintDevice>
#include <QString>
#include <memory>
#include <vector>

#include "core/annotate/placer.h"

namespace erdwerk::app {

class TextRecorder : public QPaintDevice {
public:
    struct Written {
        QString text;
        annotate::TextBox box;  ///< of its ink, in the units of the device
    };

    explicit TextRecorder(QSizeF size);
    ~TextRecorder() override;
    [[nodiscard]] QPaintEngine* paintEngine() const override;
    [[nodiscard]] const std::vector<Written>& written() const { return written_; }
    /// Pairs of texts that lie on each other.
    [[nodiscard]] std::size_t overlaps() const;

protected:
    [[nodiscard]] int metric(PaintDeviceMetric metric) const override;

private:
    class Engine;
    QSizeF size_;
    std::vector<Written> written_;
    std::unique_ptr<Engine> engine_;
};

}  // namespace erdwerk::app
