ALTER TABLE material
  ADD COLUMN binder DOUBLE NULL AFTER glycol,
  ADD COLUMN density_g_ml DOUBLE NULL AFTER binder;
