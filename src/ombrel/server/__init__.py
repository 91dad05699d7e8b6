"""Django: loads, calls the core, stores, tells every open screen. It holds no rule of the job."""
